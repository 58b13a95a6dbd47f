// skarvel-cli: plans, exports and reads measures from the command line. No Qt.
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <CLI/CLI.hpp>
#include <chrono>
#include <ctime>
#include <iostream>

#include "files/exporting.h"
#include "files/job_file.h"
#include "files/plan_json.h"
#include "files/save.h"
#include "job/plan.h"
#include "proof/proof.h"
#include "sheets/sheets.h"

namespace {

using namespace skarvel;

constexpr int exit_refused = 1;  // the input was understood, and something is wrong with it
constexpr int exit_problem = 3;  // planned, and something stops the job

Moment present() {
    const std::time_t now = std::time(nullptr);
    std::tm local{};
    localtime_r(&now, &local);
    const std::chrono::year_month_day date{std::chrono::year(local.tm_year + 1900),
                                           std::chrono::month(static_cast<unsigned>(local.tm_mon + 1)),
                                           std::chrono::day(static_cast<unsigned>(local.tm_mday))};
    return Moment(std::chrono::local_days(date).time_since_epoch() + std::chrono::hours(local.tm_hour) +
                  Minutes(local.tm_min));
}

struct Options {
    std::string job, shop, to, file, at, unit = "in", expression, files, format = "svg";
    bool json = false;
};

class Program {
  public:
    explicit Program(Library library, const Options& options) : library_(std::move(library)), options_(options) {}

    int measure() const {
        const Unit unit = options_.unit == "mm" ? Unit::Millimetre : Unit::Inch;
        const auto read = read_measure(options_.expression, unit);
        if (!read) {
            std::cerr << options_.expression << '\n'
                      << std::string(std::min(read.error().at, options_.expression.size()), ' ') << "^ "
                      << library_.catalogue.say(read.error()) << '\n';
            return exit_refused;
        }
        std::cout << show(read->value, {unit, 64}) << '\n';
        std::cout << show(read->value, {unit == Unit::Inch ? Unit::Millimetre : Unit::Inch, 64}) << '\n';
        return 0;
    }

    int plan_or_export(bool exporting) {
        if (!load()) return exit_refused;
        if (exporting) return write_files();
        if (options_.json) {
            std::cout << write_plan(job_, plan_, shop_, library_);
        } else {
            print();
        }
        return worst() == Mark::Stop ? exit_problem : 0;
    }

    // The same job in the format of today.
    int renew() const {
        const auto text = read_file(options_.job);
        const auto job = text ? read_job(*text) : tl::unexpected(text.error());
        if (!job) {
            std::cerr << options_.job << ": " << say(job.error().what) << '\n';
            return exit_refused;
        }
        const auto saved = save_file(options_.to, write_job(*job));
        if (!saved) std::cerr << options_.to << ": " << say(saved.error().what) << '\n';
        return saved ? 0 : exit_refused;
    }

    // Reads the written files back and lays them: from a folder, or as they would be written.
    int prove() {
        if (!load()) return exit_refused;
        FileSet files;
        if (options_.files.empty()) {
            files = files_of(job_, plan_, shop_);
        } else {
            std::error_code error;
            for (const auto& entry : std::filesystem::directory_iterator(options_.files, error)) {
                if (!entry.is_regular_file()) continue;
                if (auto bytes = read_file(entry.path())) files[entry.path().filename().string()] = std::move(*bytes);
            }
            if (error)
                return complain({{"proof.no-folder", {{"folder", options_.files}}}, Station::Sections, {}, Mark::Stop}),
                       exit_refused;
        }
        const CutFormat format = options_.format == "dxf"    ? CutFormat::Dxf
                                 : options_.format == "hpgl" ? CutFormat::Hpgl
                                                             : CutFormat::Svg;
        const Evidence evidence = skarvel::prove(plan_, shop_, files, format);
        for (const Problem& p : evidence.problems) complain(p);
        for (std::size_t i = 0; i < evidence.as_cut.size(); ++i) {
            print_proof("as cut", evidence.as_cut[i]);
            const ColourProof& m = evidence.as_measured[i];
            fmt::print("{}  as measured: {}; the sheet's rounding moves a section by {:.3f} mm at most\n", m.of.name,
                       m.good() ? "good" : "WRONG", m.largest_shift.in_mm());
            for (const Reason& why : m.wrong) fmt::print("    {}\n", say(why));
        }
        for (const SeamByHand& s : evidence.by_hand) {
            fmt::print(
                "{}  by hand: {} | {} opens in {:.0f} % of {} tries, by {:.2f} mm once in twenty; lap {}, safe with "
                "{}\n",
                s.of.name, s.lower, s.upper, s.share_open * 100, hand_tries, s.often.in_mm(), length(s.lap),
                length(s.safer_lap));
        }
        return evidence.good() ? 0 : exit_problem;
    }

  private:
    void print_proof(const char* what, const ColourProof& c) const {
        fmt::print("{}  {}: {}; farthest edge {:.4f} mm off, {:.3f} sq mm missing, {:.3f} too much, {} keepers lost\n",
                   c.of.name, what, c.good() ? "good" : "WRONG", c.deviation.in_mm(), c.missing_mm2, c.surplus_mm2,
                   c.keepers_lost);
        for (const Reason& why : c.wrong) fmt::print("    {}\n", say(why));
    }

    [[nodiscard]] std::string say(const Reason& r) const { return library_.catalogue.say(r, shop_.display); }
    [[nodiscard]] std::string length(Length l) const { return show(l, shop_.display); }

    void complain(const Problem& p) const {
        std::cerr << "skarvel-cli: " << say(p.what);
        if (!p.remedy.id.empty()) std::cerr << ": " << say(p.remedy);
        std::cerr << '\n';
    }

    bool load() {
        shop_ = usual_shop();
        if (!options_.shop.empty()) {
            const auto text = read_file(options_.shop);
            const auto shop = text ? read_shop(*text) : tl::unexpected(text.error());
            if (!shop) return complain(shop.error()), false;
            shop_ = *shop;
        }
        const auto text = read_file(options_.job);
        const auto job = text ? read_job(*text) : tl::unexpected(text.error());
        if (!job) return complain(job.error()), false;
        job_ = *job;
        Moment moment = present();
        if (!options_.at.empty()) {
            const auto at = read_moment(options_.at);
            if (!at) return complain(at.error()), false;
            moment = *at;
        }
        plan_ = plan(job_, shop_, library_, moment);
        return true;
    }

    int write_files() const {
        const auto written = export_job(job_, plan_, shop_, library_, options_.to);
        if (!written) return complain(written.error()), exit_refused;
        for (const auto& file : *written) std::cout << file.string() << '\n';
        if (!plan_.proof_signed) std::cerr << "skarvel-cli: the proof of the wording has not been signed\n";
        return worst() == Mark::Stop ? exit_problem : 0;
    }

    [[nodiscard]] Mark worst() const {
        Mark worst = Mark::None;
        for (const Problem& p : plan_.problems) worst = std::max(worst, p.mark);
        return worst;
    }

    void print_blank(const ColourPlan& f) const {
        const BlankPlan& b = *f.face->blank;
        const auto size = [&](const Box& box) {
            return length(from_grid(box.width())) + " x " + length(from_grid(box.height()));
        };
        fmt::print("Blank      {} x {}{}\n", length(b.length), length(b.width), b.stock ? ", a " + b.stock->name : "");
        if (!b.usable.empty()) fmt::print("           for lettering {}\n", size(b.usable));
        for (const NamedRoom& room : b.rooms) fmt::print("           {}: {}\n", say(room.what), size(room.box));
        if (b.tape) {
            for (const Reason& words : b.tape->words) fmt::print("           {}\n", say(words));
        }
        for (const Reason& note : b.notes) fmt::print("           {}\n", say(note));
        for (const Reason& order : b.order) fmt::print("           {}\n", say(order));
        for (const Reason& step : f.face->marking.steps) fmt::print("           {}\n", say(step));
        fmt::print("           {}{}\n", show_weight(b.weight.total(), shop_.display),
                   b.weight.hardware ? ", " + say(*b.weight.hardware) : "");
        if (b.weight.tipping) {
            const Tipping& t = *b.weight.tipping;
            fmt::print("           tips at {:.0f} degrees, or by a push of {} at the top\n", t.angle_degrees,
                       show_force(t.push_newton, shop_.display));
            if (t.needed_grams > 0)
                fmt::print("           {} low down would hold a push of {}\n",
                           show_weight(t.needed_grams, shop_.display), show_force(usual_push_newton, shop_.display));
        }
        for (const Reason& caution : b.weight.cautions) fmt::print("           {}\n", say(caution));
    }

    void print_saw() const {
        for (const SawPlan& s : plan_.saw) {
            // A plain blank is bought at its own length.
            if (s.cuts.size() == 1 && s.cuts.front().what.id == "cuts.blank") continue;
            fmt::print("Saw        {}: {}{}\n", s.stock,
                       s.cutting.used == 1 ? "one board" : fmt::format("{} boards", s.cutting.used),
                       s.cutting.proved ? ", no plan uses fewer" : "");
            for (std::size_t i = 0; i < s.cuts.size(); ++i) {
                fmt::print("           {} {} {}, {}{}\n", s.cuts[i].count, s.of[i], say(s.cuts[i].what),
                           length(s.cuts[i].length), s.cuts[i].angle == 90 ? "" : ", mitred");
            }
            for (const SawnBoard& board : s.cutting.boards) {
                std::string pieces;
                for (const std::size_t i : board.pieces)
                    pieces += (pieces.empty() ? "" : " + ") + length(s.cuts[i].length);
                fmt::print("           {} of {}: {}; {} over\n", board.boards, length(board.from), pieces,
                           length(board.offcut));
            }
        }
        if (!plan_.post) return;
        fmt::print("Post       {} to saw\n", length(plan_.post->sawn));
        for (const Reason& step : plan_.post->steps) fmt::print("           {}\n", say(step));
    }

    void print_face(const ColourPlan& f) const {
        if (job_.signs.size() > 1 || f.face->at.face > 0)
            fmt::print("{}{}\n", label_of(job_.signs[f.face->at.sign]), f.face->at.face > 0 ? ", back" : "");
        print_blank(f);
        fmt::print("Lettering  {} letters, caps {}", f.face->lettering->letters.size(),
                   length(f.face->lettering->cap_height));
        for (const Reason& note : f.face->lettering->notes) fmt::print("; {}", say(note));
        fmt::print("\n");
        for (const TypefaceName& t : f.face->lettering->offers)
            fmt::print("           would fill the room: {} {}\n", t.family, t.style);
        const LoadsPlan& l = *f.cut.loads;
        fmt::print("Sections   {} in {}, {} seams cross ink, {} of film, {:.0f} % used\n", l.sections.size(),
                   l.loads.size() == 1 ? std::string("1 load") : fmt::format("{} loads", l.loads.size()), l.crossings,
                   length(l.film_total), l.share * 100);
        for (const Lay& lay : lays_of(l.sections)) {
            const Section& section = l.sections[lay.section];
            const auto [low, high] = corners(section, f.face->blank->face, lay.move);
            fmt::print("           {} {}{}: from the bottom {}, from the left {}; from the top {}, from the right {}\n",
                       lay.section + 1, section.letters,
                       (l.passes > 1 ? fmt::format(", pass {}", lay.pass) : std::string()) +
                           (lay.move.over || lay.move.quarters != 0 ? ", " + turned_words(lay.move) : std::string()),
                       length(low.from_bottom), length(low.from_left), length(high.from_top), length(high.from_right));
        }
        for (std::size_t i = 0; i < l.loads.size(); ++i) {
            fmt::print("           load {}: {}, {} of film{}\n", i + 1, l.loads[i].name, length(l.loads[i].film_length),
                       l.loads[i].cut ? ", cut" : "");
        }
        for (const Seam& s : l.seams) fmt::print("           seam at {}: {}\n", length(from_grid(s.where)), say(s.why));
        for (const Reason& why : l.why) fmt::print("           {}\n", say(why));
        fmt::print("Method     {}, {}, {} {}\n", f.cut.making.way == Way::Decal ? "decal" : "paint-through",
                   f.cut.making.film.name, l.keepers, l.keepers == 1 ? "keeper" : "keepers");
        for (const Layer& layer : f.method->layers)
            fmt::print("           {}: {}\n", say(layer.name), say(layer.detail));
    }

    void print() const {
        fmt::print("{}\n", job_.title);
        for (const ColourPlan& f : plan_.colours) print_face(f);
        print_saw();
        const Schedule& c = *plan_.clock;
        if (!c.slots.empty()) {
            fmt::print("Clock      ready {}", show_moment(c.ready, true));
            if (c.start_by) fmt::print(", start by {}", show_moment(*c.start_by, true));
            fmt::print(", {} hands-on; waits on the deciding chain {}\n", show_minutes(c.hands_on),
                       show_minutes(c.chain_waits));
            for (const Wait& w : c.chain) fmt::print("           {}: {}\n", show_minutes(w.at_least), say(w.why));
        }
        fmt::print("Bench      {} steps, {} done\n", plan_.bench->steps.size(), plan_.bench->done());
        for (const Step& s : plan_.bench->steps)
            fmt::print("           {}{}  {}\n", show_moment(s.start), s.done ? " done" : "", say(s.name));
        for (const Problem& p : plan_.problems) {
            fmt::print("{}       {}: {}{}\n", p.mark == Mark::Stop ? "STOP" : "look",
                       p.where.station ? word_of(*p.where.station) : p.where.place, say(p.what),
                       p.remedy.id.empty() ? "" : "; " + say(p.remedy));
        }
    }

    Library library_;
    Options options_;
    Shop shop_;
    Job job_;
    Plan plan_;
};

}  // namespace

int main(int argc, char** argv) {
    CLI::App app{"Skarvel plans signs: lettering to scale, sections that fit the mat, and when to start.",
                 "skarvel-cli"};
    app.set_version_flag("--version", "skarvel-cli 0.1.0");
    app.require_subcommand(1);
    app.footer(
        "Exit codes: 0 done; 1 the input cannot be used; 2 the command line is wrong; 3 something stops the job.");
    Options o;
    auto* plan = app.add_subcommand("plan", "Say what follows from a job");
    plan->add_option("job", o.job, "A job file")->required();
    plan->add_flag("--json", o.json, "The whole plan as JSON (docs/plan-json.md)");
    auto* exporting = app.add_subcommand("export", "Write cut files and sheets");
    exporting->add_option("job", o.job, "A job file")->required();
    exporting->add_option("--to", o.to, "The folder to write to")->required();
    auto* proving = app.add_subcommand("prove", "Read the written files back, lay them and compare with the design");
    proving->add_option("job", o.job, "A job file")->required();
    proving->add_option("--files", o.files, "A folder of written files (default: as they would be written)");
    proving->add_option("--format", o.format, "Which of the files are cut")
        ->check(CLI::IsMember({"svg", "dxf", "hpgl"}));
    for (auto* sub : {plan, exporting, proving}) {
        sub->add_option("--at", o.at, "The moment to plan from, as 2026-05-06T18:00 (default: now)");
        sub->add_option("--shop", o.shop, "A shop file (default: a 12 x 24 mat, evenings and Saturday morning)");
    }
    auto* renewing = app.add_subcommand("renew", "Write a job file of an earlier format in that of today");
    renewing->add_option("job", o.job, "A job file")->required();
    renewing->add_option("--to", o.to, "The file to write")->required();
    auto* schema = app.add_subcommand("schema", "Print the JSON Schema of a job file, or of a shop's");
    schema->add_option("file", o.file, "job or shop")->required()->check(CLI::IsMember({"job", "shop"}));
    auto* measure = app.add_subcommand("measure", "Read a measure as makers write it");
    measure->add_option("expression", o.expression, "For example \"42 + 3/4 + 3/4\"")->required();
    measure->add_option("--unit", o.unit, "What a bare number means")->check(CLI::IsMember({"in", "mm"}));
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        const int code = app.exit(e, std::cout, std::cerr);
        return code == 0 ? 0 : 2;
    }
    if (schema->parsed()) {
        std::cout << (o.file == "job" ? skarvel::job_schema() : skarvel::shop_schema());
        return 0;
    }
    auto library = skarvel::read_library(skarvel::find_assets(SKARVEL_SOURCE_ASSETS));
    if (!library) {
        std::cerr << "skarvel-cli: " << library.error().what.id << " " << library.error().where.place << '\n';
        return exit_refused;
    }
    Program program(std::move(*library), o);
    if (measure->parsed()) return program.measure();
    if (proving->parsed()) return program.prove();
    if (renewing->parsed()) return program.renew();
    return program.plan_or_export(exporting->parsed());
}
