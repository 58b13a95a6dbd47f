// files/layer_slots.h
//
// Faces as they were written before a build-up was a list: with one place each for sanding, a ground and a clear coat.
#pragma once

#include <nlohmann/json.hpp>

namespace skarvel {

/// Each face that has the three places gets the layers that they meant, under the names by which their steps are
/// ticked; what is not as it should be is left for the reader to refuse.
void layers_from_slots(nlohmann::ordered_json& job);

}  // namespace skarvel
