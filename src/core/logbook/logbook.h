// logbook/logbook.h
//
// The logbook: one record for each finished job, in SQLite through SOCI, so that the same calls can later reach a
// server for a shop with several computers. Records are corrected, not undone.
#pragma once

#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "job/plan.h"

namespace skarvel {

struct LogRecord {
    long id = 0;           ///< given by the logbook
    std::string finished;  ///< "2026-05-09T11:20"
    std::string title, customer, words, size, making, film, paint;
    std::string film_length;  ///< as shown then
    int sections = 0, loads = 0, keepers = 0, hands_on_minutes = 0, elapsed_minutes = 0;
    std::string outcome, note;
    friend bool operator==(const LogRecord&, const LogRecord&) = default;
};

/// A load or a test cut that went to a machine.
struct CutRecord {
    long id = 0;            ///< given by the logbook
    std::string at;         ///< "2026-05-09T11:20"
    std::string job, what;  ///< the job's title; the letters of the load, empty for a test cut
    std::string machine, film;
    int force = 0, speed_mm_s = 0;  ///< grams, 0 as the machine was set
    std::string outcome;            ///< good, not-through, into-backing
    int seconds = 0;
    friend bool operator==(const CutRecord&, const CutRecord&) = default;
};

/// What one step that was measured says of one pace: so many of what it is for, in so many minutes.
struct PaceRecord {
    long id = 0;     ///< given by the logbook
    std::string at;  ///< when its job was finished
    std::string job, step, pace;
    double amount = 0, minutes = 0;
    friend bool operator==(const PaceRecord&, const PaceRecord&) = default;
};

/// A step that was done in two ways.
struct TrialRecord {
    long id = 0;  ///< given by the logbook
    std::string at, job, step, halves, first, second, better;
    friend bool operator==(const TrialRecord&, const TrialRecord&) = default;
};

/// What a finished job says of itself.
LogRecord record_of(const Job& job, const Plan& plan, const Shop& shop);

/// What it teaches.
struct Lessons {
    std::vector<PaceRecord> paces;
    std::vector<TrialRecord> trials;
    friend bool operator==(const Lessons&, const Lessons&) = default;
};
/// Minutes that a step took fall on its parts as they were planned.
Lessons lessons_of(const Job& job, const Plan& plan, const HandsOn& hands_on, const Catalogue& catalogue,
                   const Display& display);

/// What all records say of a pace.
struct TaughtPace {
    std::string pace;
    double table = 0, minutes = 0;  ///< for one: of the table, and with what was measured
    int times = 0;                  ///< steps that were measured
    friend bool operator==(const TaughtPace&, const TaughtPace&) = default;
};
/// Paces that were measured at all. The table counts as so many steps of the usual size (`HandsOn::prior_tasks`): a
/// mean with a prior, so that one odd evening does not move it far.
std::vector<TaughtPace> taught(const std::vector<PaceRecord>& records, const HandsOn& table);

class Logbook {
  public:
    /// Opens or makes the file. Refused with the database's own words.
    static Expected<Logbook> open(const std::filesystem::path& file);
    ~Logbook();
    Logbook(Logbook&&) noexcept;
    Logbook& operator=(Logbook&&) noexcept;

    /// Gives the record's number. All of it is written, or nothing.
    Expected<long> add(const LogRecord& record, const Lessons& lessons = {});
    /// Newest first.
    [[nodiscard]] Expected<std::vector<LogRecord>> all() const;
    Expected<long> add_cut(const CutRecord& record);
    /// Newest first.
    [[nodiscard]] Expected<std::vector<CutRecord>> cuts() const;
    [[nodiscard]] Expected<std::vector<PaceRecord>> paces() const;
    /// Newest first.
    [[nodiscard]] Expected<std::vector<TrialRecord>> trials() const;

  private:
    struct Session;
    explicit Logbook(std::unique_ptr<Session> session);
    std::unique_ptr<Session> session_;
};

}  // namespace skarvel
