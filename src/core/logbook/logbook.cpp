#include "logbook/logbook.h"

#include <soci/soci.h>
#include <soci/sqlite3/soci-sqlite3.h>

#include <fmt/format.h>

#include <algorithm>

#include "files/job_file.h"
#include "job/commands.h"

namespace skarvel {

struct Logbook::Session {
    soci::session sql;
};

namespace {

constexpr const char* table =
    "create table if not exists records ("
    "id integer primary key autoincrement, finished text not null, title text not null, customer text not null, "
    "words text not null, size text not null, making text not null, film text not null, paint text not null, "
    "film_length text not null, sections integer not null, loads integer not null, keepers integer not null, "
    "hands_on_minutes integer not null, elapsed_minutes integer not null, outcome text not null, note text not null)";

constexpr const char* cut_table =
    "create table if not exists cuts ("
    "id integer primary key autoincrement, at text not null, job text not null, what text not null, "
    "machine text not null, film text not null, force integer not null, speed integer not null, "
    "outcome text not null, seconds integer not null)";

constexpr const char* pace_table =
    "create table if not exists paces ("
    "id integer primary key autoincrement, at text not null, job text not null, step text not null, "
    "pace text not null, amount real not null, minutes real not null)";

constexpr const char* trial_table =
    "create table if not exists trials ("
    "id integer primary key autoincrement, at text not null, job text not null, step text not null, "
    "halves text not null, first text not null, second text not null, better text not null)";

// A key is as wide as the backend makes it.
long key_of(const soci::row& row) {
    return row.get_properties(0).get_data_type() == soci::dt_integer ? row.get<int>(0)
                                                                     : static_cast<long>(row.get<long long>(0));
}

tl::unexpected<Problem> failed(const std::exception& e) {
    return refused({"logbook.failed", {{"detail", std::string(e.what())}}}, Station::Logbook, {"logbook.remedy", {}});
}

template <class Record, class Read>
Expected<std::vector<Record>> rows_of(soci::session& sql, const char* query, Read read) {
    try {
        std::vector<Record> records;
        const soci::rowset<soci::row> rows = (sql.prepare << query);
        for (const soci::row& row : rows) records.push_back(read(row));
        return records;
    } catch (const std::exception& e) {
        return failed(e);
    }
}

}  // namespace

LogRecord record_of(const Job& job, const Plan& plan, const Shop& shop) {
    LogRecord r;
    r.finished = job.finished ? write_moment(job.finished->at) : "";
    r.title = job.title;
    r.customer = job.customer;
    r.words = wording(job);
    r.outcome = job.finished ? word_of(job.finished->outcome) : "";
    r.note = job.finished ? job.finished->note : "";
    Length film;
    for (const ColourPlan& colour : plan.colours) {
        if (colour.first)
            r.size += (r.size.empty() ? "" : "; ") + show(colour.face->blank->length, shop.display) + " × " +
                      show(colour.face->blank->width, shop.display);
        r.making = colour.cut.making.way == Way::Decal ? "decal" : "paint-through";
        r.film = colour.cut.making.film.name;
        r.paint = colour.method->colour.kind == "none" ? "" : colour.method->colour.name;
        r.sections += static_cast<int>(colour.cut.loads->sections.size());
        r.loads += static_cast<int>(std::count_if(colour.cut.loads->loads.begin(), colour.cut.loads->loads.end(),
                                                  [](const Load& l) { return l.carried_by.empty(); }));
        r.keepers += colour.cut.loads->keepers;
        film += colour.cut.loads->film_total;
    }
    r.film_length = show(film, shop.display);
    if (const Length lost = spoilt_film(job.bench); lost > Length{})
        r.film_length += ", " + show(lost, shop.display) + " spoilt";
    Minutes hands{0};
    for (const Task& task : *plan.tasks) hands += task.hands_on;
    r.hands_on_minutes = static_cast<int>(hands.count());
    if (!job.bench.ticks.empty() && job.finished) {
        Moment first = job.finished->at;
        for (const auto& [id, at] : job.bench.ticks) first = std::min(first, at);
        r.elapsed_minutes = static_cast<int>((job.finished->at - first).count());
    }
    return r;
}

Lessons lessons_of(const Job& job, const Plan& plan, const HandsOn& hands_on, const Catalogue& catalogue,
                   const Display& display) {
    Lessons out;
    const std::string at = job.finished ? write_moment(job.finished->at) : "";
    for (const Step& step : plan.bench->steps) {
        const std::string name = catalogue.say(step.name, display);
        if (step.trial) {
            const SplitTrial& t = *step.trial;
            out.trials.push_back({0, at, job.title, name, word_of(t.halves), t.first, t.second, word_of(t.better)});
        }
        const auto task =
            std::find_if(plan.tasks->begin(), plan.tasks->end(), [&](const Task& t) { return t.id == step.id; });
        if (!step.took || !step.done || task == plan.tasks->end() || task->hands_on.count() == 0) continue;
        const double longer = static_cast<double>(step.took->count()) / static_cast<double>(task->hands_on.count());
        for (const WorkPart& part : task->parts) {
            const auto pace = pace_of(hands_on, part.pace);
            if (pace)
                out.paces.push_back({0, at, job.title, name, part.pace, part.amount, part.amount * *pace * longer});
        }
    }
    return out;
}

std::vector<TaughtPace> taught(const std::vector<PaceRecord>& records, const HandsOn& table) {
    std::vector<TaughtPace> out;
    for (const auto& [name, minutes] : pace_names) {
        double amount = 0, took = 0;
        int times = 0;
        for (const PaceRecord& r : records) {
            if (r.pace != name || r.amount <= 0) continue;
            amount += r.amount;
            took += r.minutes;
            ++times;
        }
        if (times == 0) continue;
        const double known = table.prior_tasks * amount / times;
        out.push_back({std::string(name), table.*minutes, (known * table.*minutes + took) / (known + amount), times});
    }
    return out;
}

Logbook::Logbook(std::unique_ptr<Session> session) : session_(std::move(session)) {}
Logbook::~Logbook() = default;
Logbook::Logbook(Logbook&&) noexcept = default;
Logbook& Logbook::operator=(Logbook&&) noexcept = default;

Expected<Logbook> Logbook::open(const std::filesystem::path& file) {
    try {
        std::error_code error;
        if (file.has_parent_path()) std::filesystem::create_directories(file.parent_path(), error);
        auto session = std::make_unique<Session>();
        session->sql.open(soci::sqlite3, fmt::format("dbname=\"{}\" timeout=5", file.string()));
        // Together: each by itself waits for the disk.
        soci::transaction whole(session->sql);
        for (const char* made : {table, cut_table, pace_table, trial_table}) session->sql << made;
        whole.commit();
        return Logbook(std::move(session));
    } catch (const std::exception& e) {
        return failed(e);
    }
}

Expected<long> Logbook::add(const LogRecord& r, const Lessons& lessons) {
    try {
        soci::transaction whole(session_->sql);
        session_->sql
            << "insert into records (finished, title, customer, words, size, making, film, paint, film_length, "
               "sections, loads, keepers, hands_on_minutes, elapsed_minutes, outcome, note) values "
               "(:f, :t, :c, :w, :s, :m, :fi, :p, :fl, :se, :lo, :ke, :ho, :el, :o, :n)",
            soci::use(r.finished), soci::use(r.title), soci::use(r.customer), soci::use(r.words), soci::use(r.size),
            soci::use(r.making), soci::use(r.film), soci::use(r.paint), soci::use(r.film_length), soci::use(r.sections),
            soci::use(r.loads), soci::use(r.keepers), soci::use(r.hands_on_minutes), soci::use(r.elapsed_minutes),
            soci::use(r.outcome), soci::use(r.note);
        long long id = 0;
        session_->sql << "select last_insert_rowid()", soci::into(id);
        for (const PaceRecord& p : lessons.paces) {
            session_->sql << "insert into paces (at, job, step, pace, amount, minutes) values (:a, :j, :s, :p, :n, :m)",
                soci::use(p.at), soci::use(p.job), soci::use(p.step), soci::use(p.pace), soci::use(p.amount),
                soci::use(p.minutes);
        }
        for (const TrialRecord& t : lessons.trials) {
            session_->sql << "insert into trials (at, job, step, halves, first, second, better) values "
                             "(:a, :j, :st, :h, :f, :s, :b)",
                soci::use(t.at), soci::use(t.job), soci::use(t.step), soci::use(t.halves), soci::use(t.first),
                soci::use(t.second), soci::use(t.better);
        }
        whole.commit();
        return static_cast<long>(id);
    } catch (const std::exception& e) {
        return failed(e);
    }
}

Expected<std::vector<LogRecord>> Logbook::all() const {
    return rows_of<LogRecord>(session_->sql, "select * from records order by id desc", [](const soci::row& row) {
        LogRecord r;
        r.id = key_of(row);
        std::size_t i = 1;
        for (std::string* text :
             {&r.finished, &r.title, &r.customer, &r.words, &r.size, &r.making, &r.film, &r.paint, &r.film_length}) {
            *text = row.get<std::string>(i++);
        }
        for (int* number : {&r.sections, &r.loads, &r.keepers, &r.hands_on_minutes, &r.elapsed_minutes})
            *number = row.get<int>(i++);
        r.outcome = row.get<std::string>(i++);
        r.note = row.get<std::string>(i);
        return r;
    });
}

Expected<long> Logbook::add_cut(const CutRecord& r) {
    try {
        soci::transaction whole(session_->sql);
        session_->sql << "insert into cuts (at, job, what, machine, film, force, speed, outcome, seconds) values "
                         "(:a, :j, :w, :m, :f, :fo, :sp, :o, :s)",
            soci::use(r.at), soci::use(r.job), soci::use(r.what), soci::use(r.machine), soci::use(r.film),
            soci::use(r.force), soci::use(r.speed_mm_s), soci::use(r.outcome), soci::use(r.seconds);
        long long id = 0;
        session_->sql << "select last_insert_rowid()", soci::into(id);
        whole.commit();
        return static_cast<long>(id);
    } catch (const std::exception& e) {
        return failed(e);
    }
}

Expected<std::vector<CutRecord>> Logbook::cuts() const {
    return rows_of<CutRecord>(session_->sql, "select * from cuts order by id desc", [](const soci::row& row) {
        CutRecord r;
        r.id = key_of(row);
        std::size_t i = 1;
        for (std::string* text : {&r.at, &r.job, &r.what, &r.machine, &r.film}) *text = row.get<std::string>(i++);
        r.force = row.get<int>(i++);
        r.speed_mm_s = row.get<int>(i++);
        r.outcome = row.get<std::string>(i++);
        r.seconds = row.get<int>(i);
        return r;
    });
}

Expected<std::vector<PaceRecord>> Logbook::paces() const {
    return rows_of<PaceRecord>(session_->sql, "select * from paces order by id desc", [](const soci::row& row) {
        PaceRecord r;
        r.id = key_of(row);
        std::size_t i = 1;
        for (std::string* text : {&r.at, &r.job, &r.step, &r.pace}) *text = row.get<std::string>(i++);
        r.amount = row.get<double>(i++);
        r.minutes = row.get<double>(i);
        return r;
    });
}

Expected<std::vector<TrialRecord>> Logbook::trials() const {
    return rows_of<TrialRecord>(session_->sql, "select * from trials order by id desc", [](const soci::row& row) {
        TrialRecord r;
        r.id = key_of(row);
        std::size_t i = 1;
        for (std::string* text : {&r.at, &r.job, &r.step, &r.halves, &r.first, &r.second, &r.better})
            *text = row.get<std::string>(i++);
        return r;
    });
}

}  // namespace skarvel
