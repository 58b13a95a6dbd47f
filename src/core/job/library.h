// job/library.h
//
// Library: typeface bytes, trade tables and sentences, read once when a program starts and never changed.
#pragma once

#include <filesystem>
#include <memory>
#include <vector>

#include "lettering/typeface.h"
#include "method/trade.h"
#include "text/catalogue.h"

namespace skarvel {

struct Library {
    std::vector<Typeface> typefaces;  ///< for signs, by family and style
    Trade trade;
    Catalogue catalogue;
    std::shared_ptr<const std::string> page_typeface, page_typeface_bold;  ///< for printed sheets
};

/// Reads the folder of shipped assets. Refused with the file's name where one is missing or damaged.
Expected<Library> read_library(const std::filesystem::path& assets);
/// The sentences alone.
Expected<Catalogue> read_sentences(const std::filesystem::path& assets);

/// The folder of assets: $SKARVEL_ASSETS, beside the installed program, or where the program was built.
std::filesystem::path find_assets(const std::filesystem::path& built_from);

/// The whole file, or a Problem that names it.
Expected<std::string> read_file(const std::filesystem::path& path);

}  // namespace skarvel
