#include "files/exporting.h"

#include <fmt/format.h>
#include <unistd.h>

#include <algorithm>
#include <iterator>

#include "files/calendar.h"
#include "files/cut_file.h"
#include "files/pdf.h"
#include "files/print_page.h"
#include "files/save.h"

namespace skarvel {

namespace fs = std::filesystem;

namespace {

// Everything that is written, in order; the manifests are known by their names.
Expected<std::vector<CutFile>> all_files(const Job& job, const Plan& plan, const Shop& shop, const Library& library,
                                         std::vector<Problem>* left_out) {
    std::vector<CutFile> all;
    const auto take = [&](std::vector<CutFile> more) { std::move(more.begin(), more.end(), std::back_inserter(all)); };
    for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl})
        take(cut_files(plan, shop, format, left_out));
    for (PrintPage& page : print_pages(job, plan, shop, left_out)) all.push_back({page.name, std::move(page.pdf)});
    take(manifests(job, plan, shop));
    if (!plan.clock->slots.empty()) {
        all.push_back({"days.csv", days_csv(plan, library.catalogue, shop.display)});
        all.push_back({"calendar.ics", calendar_of(job, plan, library.catalogue, shop.display, plan.clock->begin)});
    }
    auto pdf = write_pdf(sheets(job, plan, shop, library), library, job.title);
    if (!pdf) return tl::unexpected(pdf.error());
    all.push_back({"sheets.pdf", std::move(*pdf)});
    if (const auto pages = bench_book(job, plan, shop, library); !pages.empty()) {
        auto book = write_pdf(pages, library, job.title);
        if (!book) return tl::unexpected(book.error());
        all.push_back({"bench-book.pdf", std::move(*book)});
    }
    return all;
}

bool is_manifest(const CutFile& file) { return file.name.starts_with("manifest."); }

tl::unexpected<Problem> cannot(const fs::path& path, const std::error_code& error) {
    return refused({"file.cannot-save", {{"file", path.string()}, {"detail", error.message()}}}, path.string(),
                   {"file.save-elsewhere", {}});
}

}  // namespace

Expected<std::vector<fs::path>> export_job(const Job& job, const Plan& plan, const Shop& shop, const Library& library,
                                           const fs::path& folder, std::vector<Problem>* left_out) {
    const bool anything = std::any_of(plan.colours.begin(), plan.colours.end(),
                                      [](const ColourPlan& f) { return !f.cut.loads->loads.empty(); });
    if (!anything) return refused({"export.nothing", {}}, "export", {"export.nothing-remedy", {}});
    const auto all = all_files(job, plan, shop, library, left_out);
    if (!all) return tl::unexpected(all.error());
    std::error_code error;
    const bool made = fs::create_directories(folder, error);
    if (error) return cannot(folder, error);
    // All of it beside, and only what is there whole is moved to its place.
    const fs::path beside = folder / fmt::format(".{}.part", ::getpid());
    const auto clear_away = [&] {
        std::error_code ignored;
        fs::remove_all(beside, ignored);
        if (made) fs::remove(folder, ignored);  // where nothing else has come into it
    };
    fs::create_directories(beside, error);
    if (error) {
        clear_away();
        return cannot(folder, error);
    }
    for (const CutFile& file : *all) {
        if (auto saved = save_file(beside / file.name, file.bytes); !saved) {
            clear_away();
            Problem problem = saved.error();
            problem.what.arguments.front().second = (folder / file.name).string();
            return tl::unexpected(std::move(problem));
        }
    }
    // While files are exchanged there is no manifest: what has none is not whole.
    for (const CutFile& file : *all) {
        if (is_manifest(file)) fs::remove(folder / file.name, error);
    }
    for (const bool manifest : {false, true}) {
        for (const CutFile& file : *all) {
            if (is_manifest(file) != manifest) continue;
            fs::rename(beside / file.name, folder / file.name, error);
            if (error) {
                clear_away();
                return cannot(folder / file.name, error);
            }
        }
    }
    clear_away();
    std::vector<fs::path> written;
    for (const CutFile& file : *all) written.push_back(folder / file.name);
    return written;
}

}  // namespace skarvel
