#include "values/checksum.h"

#include <fmt/format.h>
#include <zlib.h>

namespace skarvel {

std::string checksum_of(std::string_view bytes) {
    // The length is a size: crc32() would take 32 bits of it.
    return fmt::format("crc32:{:08x}",
                       crc32_z(0, reinterpret_cast<const Bytef*>(bytes.data()), bytes.size()));  // NOLINT: zlib's type
}

}  // namespace skarvel
