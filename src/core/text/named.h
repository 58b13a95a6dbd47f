// text/named.h
//
// Arguments of a sentence by their names there, for those who say one on the spot.
#pragma once

#include <fmt/format.h>

#include <concepts>
#include <initializer_list>
#include <string>

#include "text/catalogue.h"

namespace skarvel {

struct Named {
    template <class T>
    Named(const char* argument, const T& is) : name(argument), value(made(is)) {}

    const char* name;
    Argument value;

  private:
    static Argument made(const std::string& text) { return text; }
    static Argument made(const char* text) { return std::string(text); }
    template <std::integral N>
    static Argument made(N number) {
        return static_cast<std::int64_t>(number);
    }
    /// With as many places as it has.
    static Argument made(double number) { return fmt::format("{:g}", number); }
    static Argument made(Percent share) { return share; }
    static Argument made(Length length) { return length; }
    static Argument made(Moment moment) { return moment; }
    static Argument made(Minutes minutes) { return minutes; }
    static Argument made(const Reason& reason) { return std::vector<Reason>{reason}; }
};

inline Reason reason_of(const char* key, std::initializer_list<Named> arguments) {
    Reason reason{key, {}};
    for (const Named& a : arguments) reason.arguments.emplace_back(a.name, a.value);
    return reason;
}

/// Says sentences of one catalogue, with lengths as one shop shows them. Both outlive it.
class Speaker {
  public:
    Speaker(const Catalogue& catalogue, const Display& display) : catalogue_(&catalogue), display_(&display) {}
    std::string operator()(const Reason& reason) const { return catalogue_->say(reason, *display_); }
    std::string operator()(const char* key, std::initializer_list<Named> arguments = {}) const {
        return (*this)(reason_of(key, arguments));
    }

  private:
    const Catalogue* catalogue_;
    const Display* display_;
};

}  // namespace skarvel
