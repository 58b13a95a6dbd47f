// skarvel-cli: plans, exports and reads measures from the command line. No Qt.
#include <fmt/format.h>
#include <fmt/ostream.h>
#include <CLI/CLI.hpp>
#include <chrono>
#include <ctime>
#include <iostream>

#include "files/calendar.h"
#include "files/exporting.h"
#include "files/job_file.h"
#include "files/plan_json.h"
#include "files/save.h"
#include "job/plan.h"
#include "proof/proof.h"
#include "sheets/sheets.h"
#include "text/named.h"

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

    // The clock for other programs: rows where the file ends in .csv, otherwise a calendar.
    int calendar() {
        if (!load()) return exit_refused;
        const std::string bytes = std::filesystem::path(options_.to).extension() == ".csv"
                                      ? days_csv(plan_, library_.catalogue, shop_.display)
                                      : calendar_of(job_, plan_, library_.catalogue, shop_.display, plan_.clock->begin);
        const auto saved = save_file(options_.to, bytes);
        if (!saved) std::cerr << options_.to << ": " << say(saved.error().what) << '\n';
        return saved ? 0 : exit_refused;
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
            print_proof(evidence.as_cut[i]);
            const MeasuredProof& m = evidence.as_measured[i];
            fmt::print("{}  {}\n", m.of.name,
                       says_(m.good() ? "cli.as-measured-good" : "cli.as-measured-wrong",
                             {{"shift", fmt::format("{:.3f}", m.largest_shift.in_mm())}}));
            for (const Reason& why : m.wrong) fmt::print("    {}\n", say(why));
        }
        for (const SeamByHand& s : evidence.by_hand) {
            fmt::print("{}  {}\n", s.of.name,
                       says_("cli.by-hand", {{"lower", s.lower},
                                             {"upper", s.upper},
                                             {"share", Percent{s.share_open}},
                                             {"tries", hand_tries},
                                             {"gap", fmt::format("{:.2f}", s.often.in_mm())},
                                             {"lap", length(s.lap)},
                                             {"safer", length(s.safer_lap)},
                                             {"step", fmt::format("{:.2f}", s.step.in_mm())}}));
        }
        return evidence.good() ? 0 : exit_problem;
    }

  private:
    void print_proof(const ColourProof& c) const {
        fmt::print("{}  {}\n", c.of.name,
                   says_(c.good() ? "cli.as-cut-good" : "cli.as-cut-wrong",
                         {{"deviation", fmt::format("{:.4f}", c.deviation.in_mm())},
                          {"missing", fmt::format("{:.3f}", c.missing_mm2)},
                          {"surplus", fmt::format("{:.3f}", c.surplus_mm2)},
                          {"keepers", c.keepers_lost}}));
        for (const Reason& why : c.wrong) fmt::print("    {}\n", say(why));
    }

    [[nodiscard]] std::string say(const Reason& r) const { return says_(r); }
    [[nodiscard]] std::string length(Length l) const { return show(l, shop_.display); }

    // A station's line, and what it says further.
    void row(const char* key, std::initializer_list<Named> arguments) const {
        fmt::print("{}\n", says_(key, arguments));
    }
    static void more(const std::string& words) { fmt::print("           {}\n", words); }

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
        plan_ = plan(job_, shop_, library_, {moment, {}, clock_changes(moment, moment + std::chrono::days(400))});
        return true;
    }

    int write_files() const {
        std::vector<Problem> left_out;
        const auto written = export_job(job_, plan_, shop_, library_, options_.to, &left_out);
        if (!written) return complain(written.error()), exit_refused;
        for (const auto& file : *written) std::cout << file.string() << '\n';
        if (!plan_.proof_signed) std::cerr << "skarvel-cli: " << says_("cli.not-signed") << '\n';
        for (const Problem& p : left_out) complain(p);
        return worst() == Mark::Stop || !left_out.empty() ? exit_problem : 0;
    }

    [[nodiscard]] Mark worst() const {
        Mark worst = Mark::None;
        for (const Problem& p : plan_.problems) worst = std::max(worst, p.mark);
        return worst;
    }

    void print_blank(const ColourPlan& f) const {
        const BlankPlan& b = *f.face->blank;
        const auto size = [&](const Box& box) {
            return length(from_grid(box.width())) + " × " + length(from_grid(box.height()));
        };
        row(b.stock ? "cli.blank-of" : "cli.blank",
            {{"length", length(b.length)}, {"width", length(b.width)}, {"stock", b.stock ? b.stock->name : ""}});
        if (!b.usable.empty()) more(says_("cli.for-lettering", {{"size", size(b.usable)}}));
        for (const NamedRoom& room : b.rooms) more(say(room.what) + ": " + size(room.box));
        if (b.tape) {
            for (const Reason& words : b.tape->words) more(say(words));
        }
        for (const Reason& note : b.notes) more(say(note));
        for (const Reason& order : b.order) more(say(order));
        for (const Reason& step : f.face->marking.steps) more(say(step));
        more(show_weight(b.weight.total(), shop_.display) + (b.weight.hardware ? ", " + say(*b.weight.hardware) : ""));
        if (b.weight.tipping) {
            const Tipping& t = *b.weight.tipping;
            more(says_("cli.tips", {{"degrees", std::lround(t.angle_degrees)},
                                    {"push", show_force(t.push_newton, shop_.display)}}));
            if (t.needed_grams > 0)
                more(says_("cli.holds-push", {{"weight", show_weight(t.needed_grams, shop_.display)},
                                              {"push", show_force(usual_push_newton, shop_.display)}}));
        }
        for (const Reason& caution : b.weight.cautions) more(say(caution));
    }

    void print_saw() const {
        for (const SawPlan& s : plan_.saw) {
            // A plain blank is bought at its own length.
            if (s.cuts.size() == 1 && s.cuts.front().what.id == "cuts.blank") continue;
            row(s.cutting.proved ? "cli.saw-proved" : "cli.saw", {{"stock", s.stock}, {"boards", s.cutting.used}});
            for (std::size_t i = 0; i < s.cuts.size(); ++i) {
                more(says_(s.cuts[i].angle == 90 ? "cli.cut" : "cli.cut-mitred",
                           {{"count", s.cuts[i].count},
                            {"of", s.of[i]},
                            {"what", s.cuts[i].what},
                            {"length", length(s.cuts[i].length)}}));
            }
            for (const SawnBoard& board : s.cutting.boards) {
                std::string pieces;
                for (const std::size_t i : board.pieces)
                    pieces += (pieces.empty() ? "" : " + ") + length(s.cuts[i].length);
                more(says_("cli.board", {{"boards", board.boards},
                                         {"from", length(board.from)},
                                         {"pieces", pieces},
                                         {"over", length(board.offcut)}}));
            }
        }
        if (!plan_.post) return;
        row("cli.post", {{"length", length(plan_.post->sawn)}});
        for (const Reason& step : plan_.post->steps) more(say(step));
    }

    void print_face(const ColourPlan& f) const {
        if (job_.signs.size() > 1 || f.face->at.face > 0)
            fmt::print("{}{}\n", label_of(job_.signs[f.face->at.sign]),
                       f.face->at.face > 0 ? ", " + says_("sheet.back") : "");
        print_blank(f);
        std::string notes;
        for (const Reason& note : f.face->lettering->notes) notes += "; " + say(note);
        row("cli.lettering", {{"letters", f.face->lettering->letters.size()},
                              {"cap", length(f.face->lettering->cap_height)},
                              {"notes", notes}});
        for (const TypefaceName& t : f.face->lettering->offers)
            more(says_("cli.would-fill", {{"family", t.family}, {"style", t.style}}));
        const LoadsPlan& l = *f.cut.loads;
        row("cli.sections", {{"sections", l.sections.size()},
                             {"loads", l.loads.size()},
                             {"crossings", l.crossings},
                             {"film", length(l.film_total)},
                             {"share", Percent{l.share}}});
        for (const Lay& lay : lays_of(l.sections)) {
            const Section& section = l.sections[lay.section];
            const auto [low, high] = corners(section, f.face->blank->face, lay.move);
            const std::string how = say(turned(lay.move));
            more(says_("cli.lies-at", {{"number", lay.section + 1},
                                       {"letters", section.letters},
                                       {"pass", l.passes > 1 ? ", " + says_("sheet.pass", {{"pass", lay.pass}}) : ""},
                                       {"turned", how.empty() ? "" : ", " + how},
                                       {"bottom", length(low.from_bottom)},
                                       {"left", length(low.from_left)},
                                       {"top", length(high.from_top)},
                                       {"right", length(high.from_right)}}));
        }
        for (std::size_t i = 0; i < l.loads.size(); ++i) {
            more(says_(l.loads[i].cut ? "cli.load-cut" : "cli.load",
                       {{"number", i + 1}, {"name", l.loads[i].name}, {"film", length(l.loads[i].film_length)}}));
        }
        for (const Seam& s : l.seams) more(says_("cli.seam", {{"at", length(from_grid(s.where))}, {"why", s.why}}));
        for (const Reason& why : l.why) more(say(why));
        row(f.cut.making.way == Way::Decal ? "cli.method-decal" : "cli.method-mask",
            {{"film", f.cut.making.film.name}, {"keepers", l.keepers}});
        for (const ShownLayer& layer : f.method->layers) more(say(layer.name) + ": " + say(layer.detail));
    }

    void print() const {
        fmt::print("{}\n", job_.title);
        for (const ColourPlan& f : plan_.colours) print_face(f);
        print_saw();
        const Schedule& c = *plan_.clock;
        if (!c.slots.empty()) {
            const char* begun = job_.begin_on ? "cli.clock-then" : c.start_by ? "cli.clock-start" : "cli.clock";
            row(begun, {{"ready", c.ready},
                        {"begin", c.begin},
                        {"start", c.start_by.value_or(c.ready)},
                        {"hands_on", c.hands_on},
                        {"waits", c.chain_waits}});
            for (const Wait& w : c.chain) more(show_minutes(w.at_least) + ": " + say(w.why));
        }
        row("cli.bench", {{"steps", plan_.bench->steps.size()}, {"done", plan_.bench->done()}});
        for (const Step& s : plan_.bench->steps)
            more(show_moment(s.start) + (s.done ? " " + says_("cli.done") : "") + "  " + say(s.name));
        for (const Problem& p : plan_.problems) {
            fmt::print("{}       {}: {}{}\n", says_(p.mark == Mark::Stop ? "cli.stop" : "cli.look"),
                       p.where.station ? word_of(*p.where.station) : p.where.place, say(p.what),
                       p.remedy.id.empty() ? "" : "; " + say(p.remedy));
        }
    }

    Library library_;
    Options options_;
    Shop shop_;
    Speaker says_{library_.catalogue, shop_.display};
    Job job_;
    Plan plan_;
};

}  // namespace

int main(int argc, char** argv) {
    // Help speaks from the catalogue too; without one it shows what it would have said.
    const std::filesystem::path assets = skarvel::find_assets(SKARVEL_SOURCE_ASSETS);
    const Catalogue sentences = skarvel::read_sentences(assets).value_or(Catalogue{});
    const Display plain;
    const Speaker says(sentences, plain);
    CLI::App app{says("cli.about"), "skarvel-cli"};
    app.set_version_flag("--version", "skarvel-cli 0.1.0");
    app.require_subcommand(1);
    app.footer(says("cli.exit-codes"));
    Options o;
    auto* plan = app.add_subcommand("plan", says("cli.help-say-what-follows-from"));
    plan->add_option("job", o.job, says("cli.help-a-job-file"))->required();
    plan->add_flag("--json", o.json, says("cli.help-the-whole-plan-as"));
    auto* exporting = app.add_subcommand("export", says("cli.help-write-cut-files-and"));
    exporting->add_option("job", o.job, says("cli.help-a-job-file"))->required();
    exporting->add_option("--to", o.to, says("cli.help-the-folder-to-write"))->required();
    auto* calendar = app.add_subcommand("calendar", says("cli.help-write-the-clock"));
    calendar->add_option("job", o.job, says("cli.help-a-job-file"))->required();
    calendar->add_option("--to", o.to, says("cli.help-the-file-to-write"))->required();
    auto* proving = app.add_subcommand("prove", says("cli.help-read-the-written-files"));
    proving->add_option("job", o.job, says("cli.help-a-job-file"))->required();
    proving->add_option("--files", o.files, says("cli.help-a-folder-of-written"));
    proving->add_option("--format", o.format, says("cli.help-which-of-the-files"))
        ->check(CLI::IsMember({"svg", "dxf", "hpgl"}));
    for (auto* sub : {plan, exporting, calendar, proving}) {
        sub->add_option("--at", o.at, says("cli.help-the-moment-to-plan"));
        sub->add_option("--shop", o.shop, says("cli.help-a-shop-file-default"));
    }
    auto* renewing = app.add_subcommand("renew", says("cli.help-write-a-job-file"));
    renewing->add_option("job", o.job, says("cli.help-a-job-file"))->required();
    renewing->add_option("--to", o.to, says("cli.help-the-file-to-write"))->required();
    auto* schema = app.add_subcommand("schema", says("cli.help-print-the-json-schema"));
    schema->add_option("file", o.file, says("cli.help-job-or-shop"))->required()->check(CLI::IsMember({"job", "shop"}));
    auto* measure = app.add_subcommand("measure", says("cli.help-read-a-measure-as"));
    measure->add_option("expression", o.expression, says("cli.help-for-example-42-3"))->required();
    measure->add_option("--unit", o.unit, says("cli.help-what-a-bare-number"))->check(CLI::IsMember({"in", "mm"}));
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
    auto library = skarvel::read_library(assets);
    if (!library) {
        std::cerr << "skarvel-cli: " << library.error().what.id << " " << library.error().where.place << '\n';
        return exit_refused;
    }
    Program program(std::move(*library), o);
    if (measure->parsed()) return program.measure();
    if (calendar->parsed()) return program.calendar();
    if (proving->parsed()) return program.prove();
    if (renewing->parsed()) return program.renew();
    return program.plan_or_export(exporting->parsed());
}
