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

  private:
    struct Session;
    explicit Logbook(std::unique_ptr<Session> session);
    std::unique_ptr<Session> session_;
};

}  // namespace skarvel
