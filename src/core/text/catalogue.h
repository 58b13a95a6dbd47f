// text/catalogue.h
//
// The catalogue says Reasons in words. Sentences are data (assets/text/en.json): id -> pattern as the Unicode library
// ICU reads it, in which {name} stands for an argument, {name, plural, one {# section} other {# sections}} for a count
// with its noun, and {name_far} for the length `name` in feet or metres.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <string_view>

#include "measure/reading.h"
#include "text/reason.h"

namespace skarvel {

class Catalogue {
  public:
    Catalogue();
    explicit Catalogue(std::map<std::string, std::string> patterns);

    /// Never fails: an unknown id is said as the id itself, a missing argument as "?"; tests look for both. From any
    /// thread.
    [[nodiscard]] std::string say(const Reason& reason, const Display& display) const;
    [[nodiscard]] std::string say(const Misread& misread) const { return say(Reason{misread.id, {}}, {}); }
    [[nodiscard]] bool has(std::string_view id) const;
    [[nodiscard]] const std::map<std::string, std::string>& patterns() const;

  private:
    struct Sentences;
    std::shared_ptr<Sentences> sentences_;  ///< never changed, but for what has been made ready to be said
};

/// From the text of a catalogue file: one flat object of strings.
Expected<Catalogue> read_catalogue(std::string_view json);

/// "Tue 18:30", "Tue 5 May 18:30".
std::string show_moment(Moment moment, bool with_date = false);
/// "10 ft" where inches are shown, "3.05 m" where millimetres are.
std::string show_far(Length length, const Display& display);
/// "25 min", "5 h 20 min", "3 d 4 h".
/// "3.2 lb" where inches are shown, "1.5 kg" where millimetres are. 1 lb is 0.45359237 kg (1959 agreement).
std::string show_weight(int grams, const Display& display);
/// "4.5 lbf" or "20 N". 1 lbf is 4.4482216 N (the pound at standard gravity).
std::string show_force(double newton, const Display& display);
std::string show_minutes(Minutes minutes);

}  // namespace skarvel
