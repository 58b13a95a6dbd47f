// Every input that is kept for the fuzzer, and every one that ever failed there, through its reader once more.
#include <catch2/catch.hpp>

#include <filesystem>
#include <fstream>
#include <set>
#include <sstream>

#include "fuzz/readers.h"

namespace fs = std::filesystem;

TEST_CASE("what is kept of the fuzzer's inputs is read or refused, and ends nothing") {
    const fs::path corpus = fs::path(SKARVEL_SOURCE) / "tests/fuzz/corpus";
    std::set<std::string> names;
    for (const auto& reader : skarvel::fuzz::readers()) {
        names.insert(reader.name);
        if (!fs::exists(corpus / reader.name)) continue;
        for (const auto& entry : fs::directory_iterator(corpus / reader.name)) {
            std::ostringstream bytes;
            bytes << std::ifstream(entry.path(), std::ios::binary).rdbuf();
            INFO(entry.path());
            CHECK_NOTHROW(reader.read(bytes.str()));
        }
    }
    for (const auto& folder : fs::directory_iterator(corpus)) CHECK(names.contains(folder.path().filename().string()));
}
