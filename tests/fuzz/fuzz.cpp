// The fuzzer's entry: which reader it tries is said by SKARVEL_READER.
#include <cstdio>
#include <cstdlib>
#include <string_view>

#include "fuzz/readers.h"

namespace {
const skarvel::fuzz::Reader* chosen = nullptr;
}

extern "C" int LLVMFuzzerInitialize(int*, char***) {
    const char* wanted = std::getenv("SKARVEL_READER");
    for (const auto& reader : skarvel::fuzz::readers()) {
        if (wanted != nullptr && std::string_view(wanted) == reader.name) chosen = &reader;
    }
    if (chosen != nullptr) return 0;
    std::fputs("SKARVEL_READER must name one of:", stderr);
    for (const auto& reader : skarvel::fuzz::readers()) std::fprintf(stderr, " %s", reader.name);
    std::fputs("\n", stderr);
    std::exit(2);
}

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
    chosen->read({reinterpret_cast<const char*>(data), size});
    return 0;
}
