// job/naming.h
//
// What faces and colours are called to a reader.
#pragma once

#include "job/job.h"

namespace skarvel {

/// By its id, as steps name it: the sign's name where there are several, and the colour's where its face has several;
/// empty where neither needs saying.
std::string name_of_face(const Job& job, const std::string& id);

}  // namespace skarvel
