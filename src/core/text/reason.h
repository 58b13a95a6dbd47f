// text/reason.h
//
// Reason: what the core has to say, as data: the id of a sentence and its arguments. Only the catalogue turns it into
// words, in the unit that is shown, so that switching units or language plans nothing again.
#pragma once

#include <chrono>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <tl/expected.hpp>
#include <utility>
#include <variant>
#include <vector>

#include "measure/length.h"
#include "values/station.h"

namespace skarvel {

/// Wall-clock time at the maker's place.
using Moment = std::chrono::local_time<std::chrono::minutes>;
using Minutes = std::chrono::minutes;

struct Reason;

/// `Percent` is shown without decimals; `double` with one.
struct Percent {
    double of_one = 0;
    friend bool operator==(const Percent&, const Percent&) = default;
};

using Argument = std::variant<std::string, std::int64_t, double, Percent, Length, Moment, Minutes, std::vector<Reason>>;

struct Reason {
    std::string id;
    std::vector<std::pair<std::string, Argument>> arguments;
    friend bool operator==(const Reason&, const Reason&) = default;
};

/// How much a finding weighs: nothing to do, look at it, or stop.
enum class Mark { None, Look, Stop };
constexpr auto words_of(Mark) { return std::array{"none", "look", "stop"}; }

/// What is wrong, where, and what would help. Readers of outside input return it instead of a value.
/// A station, or what it is in a field, a file or a line; may be neither.
struct Where {
    std::optional<Station> station{};
    std::string place{};
    Where() = default;
    Where(Station of) : station(of) {}               // NOLINT(google-explicit-constructor)
    Where(std::string at) : place(std::move(at)) {}  // NOLINT(google-explicit-constructor)
    Where(const char* at) : place(at) {}             // NOLINT(google-explicit-constructor)
    friend bool operator==(const Where&, const Where&) = default;
};

struct Problem {
    Reason what;
    Where where;
    Reason remedy;
    Mark mark = Mark::Stop;
    friend bool operator==(const Problem&, const Problem&) = default;
};

template <class T>
using Expected = tl::expected<T, Problem>;

inline tl::unexpected<Problem> refused(Reason what, Where where = {}, Reason remedy = {}) {
    return tl::unexpected(Problem{std::move(what), std::move(where), std::move(remedy), Mark::Stop});
}

}  // namespace skarvel
