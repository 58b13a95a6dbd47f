#include "files/exporting.h"

#include <algorithm>

#include "files/calendar.h"
#include "files/cut_file.h"
#include "files/pdf.h"
#include "files/print_page.h"
#include "files/save.h"

namespace skarvel {

Expected<std::vector<std::filesystem::path>> export_job(const Job& job, const Plan& plan, const Shop& shop,
                                                        const Library& library, const std::filesystem::path& folder,
                                                        std::vector<Problem>* left_out) {
    const bool anything = std::any_of(plan.colours.begin(), plan.colours.end(),
                                      [](const ColourPlan& f) { return !f.cut.loads->loads.empty(); });
    if (!anything) return refused({"export.nothing", {}}, "export", {"export.nothing-remedy", {}});
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    if (error) {
        return refused({"file.cannot-save", {{"file", folder.string()}, {"detail", error.message()}}}, folder.string(),
                       {"file.save-elsewhere", {}});
    }
    std::vector<std::filesystem::path> written;
    const auto write = [&](const std::string& name, const std::string& bytes) -> Expected<FileStamp> {
        auto stamp = save_file(folder / name, bytes);
        if (stamp) written.push_back(folder / name);
        return stamp;
    };
    for (const CutFormat format : {CutFormat::Svg, CutFormat::Dxf, CutFormat::Hpgl}) {
        for (const CutFile& file : cut_files(plan, shop, format, left_out)) {
            if (auto saved = write(file.name, file.bytes); !saved) return tl::unexpected(saved.error());
        }
    }
    for (const PrintPage& page : print_pages(job, plan, shop, left_out)) {
        if (auto saved = write(page.name, page.pdf); !saved) return tl::unexpected(saved.error());
    }
    for (const CutFile& file : manifests(job, plan, shop)) {
        if (auto saved = write(file.name, file.bytes); !saved) return tl::unexpected(saved.error());
    }
    const Display& display = shop.display;
    if (!plan.clock->slots.empty()) {
        const std::string days = days_csv(plan, library.catalogue, display);
        const std::string calendar = calendar_of(job, plan, library.catalogue, display, plan.clock->begin);
        for (const auto& [name, bytes] : {std::pair("days.csv", &days), std::pair("calendar.ics", &calendar)}) {
            if (auto saved = write(name, *bytes); !saved) return tl::unexpected(saved.error());
        }
    }
    const auto pdf = write_pdf(sheets(job, plan, shop, library), library, job.title);
    if (!pdf) return tl::unexpected(pdf.error());
    if (auto saved = write("sheets.pdf", *pdf); !saved) return tl::unexpected(saved.error());
    if (const auto pages = bench_book(job, plan, shop, library); !pages.empty()) {
        const auto book = write_pdf(pages, library, job.title);
        if (!book) return tl::unexpected(book.error());
        if (auto saved = write("bench-book.pdf", *book); !saved) return tl::unexpected(saved.error());
    }
    return written;
}

}  // namespace skarvel
