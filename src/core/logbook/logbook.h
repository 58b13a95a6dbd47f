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

/// What a finished job says of itself.
LogRecord record_of(const Job& job, const Plan& plan, const Shop& shop);

class Logbook {
  public:
    /// Opens or makes the file. Refused with the database's own words.
    static Expected<Logbook> open(const std::filesystem::path& file);
    ~Logbook();
    Logbook(Logbook&&) noexcept;
    Logbook& operator=(Logbook&&) noexcept;

    /// Gives the record's number.
    Expected<long> add(const LogRecord& record);
    /// Newest first.
    [[nodiscard]] Expected<std::vector<LogRecord>> all() const;
    Expected<long> add_cut(const CutRecord& record);
    /// Newest first.
    [[nodiscard]] Expected<std::vector<CutRecord>> cuts() const;

  private:
    struct Session;
    explicit Logbook(std::unique_ptr<Session> session);
    std::unique_ptr<Session> session_;
};

}  // namespace skarvel
