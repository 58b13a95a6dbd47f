// measure/length.h
//
// Length: an exact count of nanometres. 1/64 in is 396 875 nm and 1 in is 25 400 000 nm (international yard and pound
// agreement, 1959), so inches in sixty-fourths and millimetres are both held without rounding.
#pragma once

#include <array>
#include <cmath>
#include <compare>
#include <cstdint>

namespace skarvel {

class Length {
  public:
    constexpr Length() = default;

    static constexpr Length nanometres(std::int64_t count) { return Length(count); }
    static constexpr Length sixtyfourths(std::int64_t count) { return Length(count * 396'875); }
    static constexpr Length inches(std::int64_t whole, std::int64_t part = 0, std::int64_t of = 1) {
        return Length(whole * nm_per_inch + part * nm_per_inch / of);
    }
    static constexpr Length millimetres(std::int64_t count) { return Length(count * 1'000'000); }
    /// Rounded to the nearest nanometre, halves away from zero.
    static Length from_mm(double mm) { return Length(std::llround(mm * 1e6)); }

    [[nodiscard]] constexpr std::int64_t nm() const { return nm_; }
    [[nodiscard]] constexpr double in_mm() const { return static_cast<double>(nm_) * 1e-6; }
    [[nodiscard]] constexpr double in_inches() const { return static_cast<double>(nm_) / nm_per_inch; }

    constexpr Length operator-() const { return Length(-nm_); }
    constexpr Length& operator+=(Length other) { return nm_ += other.nm_, *this; }
    constexpr Length& operator-=(Length other) { return nm_ -= other.nm_, *this; }
    friend constexpr Length operator+(Length a, Length b) { return Length(a.nm_ + b.nm_); }
    friend constexpr Length operator-(Length a, Length b) { return Length(a.nm_ - b.nm_); }
    friend constexpr Length operator*(Length a, std::int64_t n) { return Length(a.nm_ * n); }
    friend constexpr Length operator*(std::int64_t n, Length a) { return a * n; }
    friend constexpr Length operator/(Length a, std::int64_t n) { return Length(a.nm_ / n); }
    friend constexpr auto operator<=>(const Length&, const Length&) = default;

    static constexpr std::int64_t nm_per_inch = 25'400'000;

  private:
    constexpr explicit Length(std::int64_t nm) : nm_(nm) {}
    std::int64_t nm_ = 0;
};

inline namespace literals {
/// `5.5_in`: for constants that are whole sixty-fourths.
constexpr Length operator""_in(long double inches) {
    return Length::nanometres(static_cast<std::int64_t>(inches * Length::nm_per_inch + 0.5L));
}
constexpr Length operator""_in(unsigned long long inches) { return Length::inches(static_cast<std::int64_t>(inches)); }
constexpr Length operator""_mm(unsigned long long mm) { return Length::millimetres(static_cast<std::int64_t>(mm)); }
}  // namespace literals

enum class Unit { Inch, Millimetre };
constexpr auto words_of(Unit) { return std::array{"in", "mm"}; }

/// How lengths are shown: fractions of an inch to 1/denominator (16, 32 or 64), or millimetres to a tenth.
struct Display {
    Unit unit = Unit::Inch;
    int denominator = 16;
    friend bool operator==(const Display&, const Display&) = default;
};

}  // namespace skarvel
