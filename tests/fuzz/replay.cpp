// What is kept of the fuzzer's inputs, through the readers that need little of the core. The build puts it under the
// sanitizers, which end the program where something is wrong. Usage: CORPUS
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <sstream>

#include "fuzz/readers.h"

int main(int count_of_arguments, char** arguments) {
    namespace fs = std::filesystem;
    if (count_of_arguments != 2) return 2;
    int count = 0;
    for (const auto& reader : skarvel::fuzz::readers_of_bytes()) {
        const fs::path folder = fs::path(arguments[1]) / reader.name;
        if (!fs::exists(folder)) continue;
        for (const auto& entry : fs::directory_iterator(folder)) {
            std::ostringstream bytes;
            bytes << std::ifstream(entry.path(), std::ios::binary).rdbuf();
            std::printf("%s\n", entry.path().c_str());
            std::fflush(stdout);
            reader.read(bytes.str());
            ++count;
        }
    }
    std::printf("%d inputs\n", count);
    return count > 0 ? 0 : 1;
}
