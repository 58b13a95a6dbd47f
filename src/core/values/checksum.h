// values/checksum.h
//
// Checksum of a file's bytes, by which a job knows a typeface or a drawing again.
#pragma once

#include <string>
#include <string_view>

namespace skarvel {

/// CRC-32 as in ISO 3309, by zlib: "crc32:" and eight hexadecimal figures.
std::string checksum_of(std::string_view bytes);

}  // namespace skarvel
