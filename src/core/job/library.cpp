#include "job/library.h"

#include <algorithm>
#include <array>
#include <cstdlib>
#include <cstring>
#include <fstream>
#include <future>

#include "values/limits.h"

namespace skarvel {

namespace fs = std::filesystem;

Expected<std::string> read_file(const fs::path& path) {
    std::error_code error;
    if (fs::is_directory(path, error)) return refused({"file.is-folder", {{"file", path.string()}}}, path.string());
    const auto size = fs::file_size(path, error);
    if (!error && size > limits::file_bytes) {
        return refused(
            {"limit.file", {{"file", path.string()}, {"megabytes", static_cast<std::int64_t>(limits::file_megabytes)}}},
            path.string());
    }
    std::ifstream in(path, std::ios::binary);
    if (!in) {
        return refused({"file.cannot-read", {{"file", path.string()}, {"detail", std::string(std::strerror(errno))}}},
                       path.string(), {"file.check-path", {}});
    }
    // What is no file, as a pipe, has no size and may have no end.
    std::string all;
    if (!error) all.reserve(size);
    std::array<char, 65536> part{};
    while (in.read(part.data(), part.size()) || in.gcount() > 0) {
        all.append(part.data(), static_cast<std::size_t>(in.gcount()));
        if (all.size() > limits::file_bytes) {
            return refused(
                {"limit.file",
                 {{"file", path.string()}, {"megabytes", static_cast<std::int64_t>(limits::file_megabytes)}}},
                path.string());
        }
    }
    return all;
}

namespace {

// For signs, by family and style.
Expected<std::vector<Typeface>> read_typefaces(const fs::path& folder) {
    std::error_code error;
    std::vector<fs::path> files;
    for (const auto& entry : fs::directory_iterator(folder, error)) files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    std::vector<Typeface> typefaces;
    for (const fs::path& file : files) {
        auto bytes = read_file(file);
        if (!bytes) return tl::unexpected(bytes.error());
        auto typeface = read_typeface(std::make_shared<const std::string>(std::move(*bytes)), Trust::Shipped);
        if (!typeface) return refused(typeface.error().what, file.string());
        typefaces.push_back(std::move(*typeface));
    }
    if (typefaces.empty()) return refused({"file.no-typefaces", {}}, folder.string());
    std::stable_sort(typefaces.begin(), typefaces.end(), [](const Typeface& a, const Typeface& b) {
        return std::tie(a.name.family, a.name.style) < std::tie(b.name.family, b.name.style);
    });
    return typefaces;
}

}  // namespace

Expected<Library> read_library(const fs::path& assets) {
    // The three that take longest side by side.
    auto typefaces = std::async(std::launch::async, read_typefaces, assets / "fonts/signs");
    auto sentences = std::async(std::launch::async, read_sentences, assets);
    std::array<std::string, 4> trade;
    const std::array names = {"trade/stock.json", "trade/materials.json", "trade/rules.json", "trade/cautions.json"};
    for (std::size_t i = 0; i < names.size(); ++i) {
        auto text = read_file(assets / names.at(i));
        if (!text) return tl::unexpected(text.error());
        trade.at(i) = std::move(*text);
    }
    Library library;
    auto tables = read_trade(trade[0], trade[1], trade[2], trade[3]);
    if (!tables) return tl::unexpected(tables.error());
    library.trade = std::move(*tables);

    for (const bool bold : {false, true}) {
        auto bytes = read_file(
            assets / (bold ? "fonts/interface/PlexSans-SemiBold.ttf" : "fonts/interface/PlexSans-Regular.ttf"));
        if (!bytes) return tl::unexpected(bytes.error());
        (bold ? library.page_typeface_bold : library.page_typeface) =
            std::make_shared<const std::string>(std::move(*bytes));
    }
    auto faces = typefaces.get();
    if (!faces) return tl::unexpected(faces.error());
    library.typefaces = std::move(*faces);
    auto catalogue = sentences.get();
    if (!catalogue) return tl::unexpected(catalogue.error());
    library.catalogue = std::move(*catalogue);
    return library;
}

Expected<Catalogue> read_sentences(const fs::path& assets) {
    const auto sentences = read_file(assets / "text/en.json");
    if (!sentences) return tl::unexpected(sentences.error());
    return read_catalogue(*sentences);
}

fs::path find_assets(const fs::path& built_from) {
    if (const char* named = std::getenv("SKARVEL_ASSETS")) return named;
    std::error_code error;
    const fs::path program = fs::read_symlink("/proc/self/exe", error);
    const fs::path installed = program.parent_path().parent_path() / "share/skarvel/assets";
    return fs::exists(installed / "text/en.json", error) ? installed : built_from;
}

}  // namespace skarvel
