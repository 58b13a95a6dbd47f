// job/naming.h
//
// What faces and colours are called to a reader.
#pragma once

#include "job/job.h"

namespace skarvel {

/// The sign's name where there are several, and the colour's where its face has several;
/// empty where neither needs saying.
std::string name_of_colour(const Job& job, const ColourId& id);

}  // namespace skarvel
