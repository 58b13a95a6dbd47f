#include "measure/reading.h"

#include <fmt/format.h>
#include <algorithm>
#include <array>
#include <boost/multiprecision/cpp_int.hpp>
#include <memory>
#include <numeric>
#include <optional>
#include <vector>

namespace skarvel {
namespace {

using Rational = boost::multiprecision::cpp_rational;
using Whole = boost::multiprecision::cpp_int;

constexpr std::size_t longest_text = 200;
constexpr int deepest_nesting = 40;
constexpr std::int64_t largest_nm = 1'000'000'000'000;  // 1000 m

struct Failure {
    Misread misread;
};

[[noreturn]] void fail(std::string id, std::size_t at) { throw Failure{{std::move(id), at}}; }

// One character of the text in plain signs, with the byte where it stood.
struct Sign {
    char what;
    std::size_t at;
    std::size_t end;
};

struct Spelling {
    std::string_view written;
    std::string_view plain;
};

// What a keyboard, a tape or a copied text may hold, in plain signs. A vulgar fraction gets a space before it so that
// 60½ and 60 ½ read alike.
constexpr std::array spellings = {
    Spelling{"½", " 1/2"}, Spelling{"¼", " 1/4"}, Spelling{"¾", " 3/4"},   Spelling{"⅛", " 1/8"},
    Spelling{"⅜", " 3/8"}, Spelling{"⅝", " 5/8"}, Spelling{"⅞", " 7/8"},   Spelling{"⅓", " 1/3"},
    Spelling{"⅔", " 2/3"}, Spelling{"⅙", " 1/6"}, Spelling{"⅚", " 5/6"},   Spelling{"′", "'"},
    Spelling{"’", "'"},    Spelling{"″", "\""},   Spelling{"”", "\""},     Spelling{"“", "\""},
    Spelling{"×", "*"},    Spelling{"·", "*"},    Spelling{"÷", "/"},      Spelling{"⁄", "/"},
    Spelling{"−", "-"},    Spelling{"–", "-"},    Spelling{"\u00a0", " "}, Spelling{"\u202f", " "},
    Spelling{"\t", " "},   Spelling{"''", "\""},
};

std::vector<Sign> plain_signs(std::string_view text) {
    std::vector<Sign> signs;
    for (std::size_t i = 0; i < text.size();) {
        const auto* known = std::find_if(spellings.begin(), spellings.end(),
                                         [&](const Spelling& s) { return text.substr(i).starts_with(s.written); });
        if (known != spellings.end()) {
            for (const char c : known->plain) signs.push_back({c, i, i + known->written.size()});
            i += known->written.size();
            // What stands hard behind a fraction of one sign would lengthen the number below its bar.
            const bool more = i < text.size() && (std::isdigit(static_cast<unsigned char>(text[i])) != 0 ||
                                                  text[i] == '.' || text[i] == ',');
            if (known->plain.front() == ' ' && known->plain.size() > 1 && more) fail("measure.two-numbers", i);
        } else {
            const auto c = static_cast<unsigned char>(text[i]);
            if (c >= 0x80) fail("measure.strange", i);
            signs.push_back({static_cast<char>(std::tolower(c)), i, i + 1});
            ++i;
        }
    }
    return signs;
}

enum class Dimension { Ratio, Length };

struct Node {
    char kind;  // '#' number, 'n' negated, or the operator
    Rational value;
    bool has_unit = false;
    std::size_t at = 0;
    std::size_t end = 0;  // where a bare number's unit would be written
    std::unique_ptr<Node> left, right;
};

using Tree = std::unique_ptr<Node>;

struct Scale {
    std::string_view name;
    std::int64_t nm;
};

// Longest first, so that "inches" is not read as "in".
constexpr std::array scales = {
    Scale{"inches", 25'400'000}, Scale{"inch", 25'400'000}, Scale{"feet", 304'800'000}, Scale{"foot", 304'800'000},
    Scale{"in", 25'400'000},     Scale{"ft", 304'800'000},  Scale{"mm", 1'000'000},     Scale{"cm", 10'000'000},
    Scale{"\"", 25'400'000},     Scale{"'", 304'800'000},   Scale{"m", 1'000'000'000},
};
constexpr std::int64_t foot_nm = 304'800'000;
constexpr std::int64_t inch_nm = 25'400'000;

class Parser {
  public:
    explicit Parser(std::string_view text) : signs_(plain_signs(text)), size_(text.size()) {}

    Tree parse() {
        skip_spaces();
        if (done()) fail("measure.empty", 0);
        Tree tree = sum(0);
        if (!done()) fail(digit(here()) || here() == '.' ? "measure.two-numbers" : "measure.strange", byte());
        if (joined_ && crowded_) fail("measure.spaces-round-minus", *crowded_);
        return tree;
    }

  private:
    [[nodiscard]] bool done() const { return next_ >= signs_.size(); }
    [[nodiscard]] char here(std::size_t ahead = 0) const {
        return next_ + ahead < signs_.size() ? signs_[next_ + ahead].what : '\0';
    }
    [[nodiscard]] std::size_t byte() const { return done() ? size_ : signs_[next_].at; }
    [[nodiscard]] std::size_t last_byte() const { return next_ == 0 ? 0 : signs_[next_ - 1].end; }
    static bool digit(char c) { return c >= '0' && c <= '9'; }
    void skip_spaces() {
        while (here() == ' ') ++next_;
    }
    // An operator with a number or bracket hard against it, which makes a joining hyphen elsewhere doubtful.
    void note_operator() {
        const bool before = next_ > 0 && signs_[next_ - 1].what == ' ';
        const bool after = here(1) == ' ';
        if ((!before || !after) && !crowded_) crowded_ = byte();
    }

    Tree sum(int depth) {
        if (depth > deepest_nesting) fail("measure.too-deep", byte());
        Tree left = product(depth);
        for (skip_spaces(); here() == '+' || here() == '-'; skip_spaces()) {
            note_operator();
            const char op = here();
            const std::size_t at = byte();
            ++next_;
            left = join(op, at, std::move(left), product(depth));
        }
        return left;
    }

    Tree product(int depth) {
        Tree left = signed_part(depth);
        for (skip_spaces(); here() == '*' || here() == '/' || here() == 'x'; skip_spaces()) {
            note_operator();
            // 12x24 is a size and 0x10 a figure of computers: neither is meant as a product.
            if (here() == 'x' && digit(here(1)) && digit(signs_[next_ - 1].what)) fail("measure.size", byte());
            const char op = here() == 'x' ? '*' : here();
            const std::size_t at = byte();
            ++next_;
            left = join(op, at, std::move(left), signed_part(depth));
        }
        return left;
    }

    static Tree join(char op, std::size_t at, Tree left, Tree right) {
        auto node = std::make_unique<Node>();
        node->kind = op;
        node->at = at;
        node->left = std::move(left);
        node->right = std::move(right);
        return node;
    }

    Tree signed_part(int depth) {
        skip_spaces();
        if (here() == '-') {
            const std::size_t at = byte();
            ++next_;
            if (depth > deepest_nesting) fail("measure.too-deep", at);
            return join('n', at, signed_part(depth + 1), nullptr);
        }
        if (here() == '+') ++next_;
        skip_spaces();
        if (here() == '(') {
            const std::size_t at = byte();
            ++next_;
            Tree inside = sum(depth + 1);
            skip_spaces();
            if (here() != ')') fail("measure.bracket", at);
            ++next_;
            return inside;
        }
        return quantity();
    }

    std::int64_t unit() {
        std::size_t mark = next_;
        skip_spaces();
        for (const Scale& scale : scales) {
            bool same = true;
            for (std::size_t i = 0; i < scale.name.size(); ++i) same = same && here(i) == scale.name[i];
            const char after = here(scale.name.size());
            const bool letter = after >= 'a' && after <= 'z' && after != 'x';
            if (same && (!letter || scale.name.size() == 1) && !(scale.name == "m" && letter)) {
                next_ += scale.name.size();
                if (here() == '.' && !digit(here(1)) && scale.name != "\"" && scale.name != "'") ++next_;  // "in."
                return scale.nm;
            }
        }
        next_ = mark;
        return 0;
    }

    // A number with its unit; feet may be followed by inches.
    Tree quantity() {
        skip_spaces();
        auto node = std::make_unique<Node>();
        node->kind = '#';
        node->at = byte();
        node->value = number();
        node->end = last_byte();
        const std::int64_t nm = unit();
        if (nm == 0) return node;
        node->has_unit = true;
        node->value *= nm;
        if (nm == foot_nm) add_inches(*node);
        return node;
    }

    void add_inches(Node& feet) {
        const std::size_t mark = next_;
        // 5'-3" is how drawings write feet and inches: the hyphen stands hard between the foot mark and a digit.
        if (here() == '-' && digit(here(1)) && signs_[next_ - 1].what == '\'') ++next_;
        skip_spaces();
        if (!digit(here())) {
            next_ = mark;
            return;
        }
        const std::size_t at = byte();
        const Rational inches = number();
        const std::int64_t nm = unit();
        if (nm != 0 && nm != inch_nm) fail("measure.two-numbers", at);
        feet.value += inches * inch_nm;
    }

    Whole digits() {
        Whole value = 0;
        while (digit(here())) value = value * 10 + (signs_[next_++].what - '0');
        return value;
    }

    // n/d with nothing between, or nothing at all.
    std::optional<Rational> fraction() {
        const std::size_t mark = next_;
        const std::size_t at = byte();
        if (!digit(here())) return std::nullopt;
        const Whole over = digits();
        if (here() != '/' || !digit(here(1))) {
            next_ = mark;
            return std::nullopt;
        }
        ++next_;
        const Whole under = digits();
        if (here() == '.' || here() == ',') {
            next_ = mark;
            return std::nullopt;
        }
        if (under == 0) fail("measure.zero-below", at);
        return Rational(over, under);
    }

    Rational number() {
        const std::size_t at = byte();
        if (auto alone = fraction()) return *alone;
        if (!digit(here()) && !((here() == '.' || here() == ',') && digit(here(1)))) {
            fail(done() ? "measure.unfinished" : "measure.strange", at);
        }
        Rational value(digits());
        if ((here() == '.' || here() == ',') && digit(here(1))) {
            ++next_;
            Whole scale = 1;
            while (digit(here())) {
                scale *= 10;
                value += Rational(signs_[next_++].what - '0', scale);
            }
            if (here() == '.' || here() == ',') fail("measure.two-points", byte());
            return value;
        }
        if (here() == '.' || here() == ',') fail("measure.ends-in-point", byte());
        return value + fraction_after();
    }

    // The fraction of a mixed number: after a space, or after a hyphen that joins.
    Rational fraction_after() {
        const std::size_t mark = next_;
        const bool hyphen = here() == '-';
        if (hyphen) {
            ++next_;
        } else {
            if (here() != ' ') return 0;
            skip_spaces();
        }
        const std::size_t at = byte();
        const std::optional<Rational> part = fraction();
        if (!part) {
            next_ = mark;
            return 0;
        }
        const bool proper = *part < 1 && denominator_written(mark) >= 2 && denominator_written(mark) <= 64;
        if (hyphen) {
            if (!proper) {
                next_ = mark;
                return 0;
            }
            joined_ = true;
        } else if (*part >= 1) {
            fail("measure.two-numbers", at);
        }
        return *part;
    }

    // The denominator as written between `from` and here: 2/4 counts as 4.
    [[nodiscard]] long denominator_written(std::size_t from) const {
        std::string written;
        for (std::size_t i = next_; i > from && digit(signs_[i - 1].what); --i)
            written.insert(0, 1, signs_[i - 1].what);
        return written.size() > 6 ? 1'000'000 : std::stol(written.empty() ? "0" : written);
    }

    std::vector<Sign> signs_;
    std::size_t size_;
    std::size_t next_ = 0;
    bool joined_ = false;
    std::optional<std::size_t> crowded_;
};

// Which dimensions a part of the expression can have, as its bare numbers are still undecided.
struct Can {
    bool ratio = false;
    bool length = false;
};

Can possible(const Node& node) {
    if (node.kind == '#') return node.has_unit ? Can{false, true} : Can{true, true};
    const Can l = possible(*node.left);
    if (node.kind == 'n') return l;
    const Can r = possible(*node.right);
    Can both;
    switch (node.kind) {
        case '+':
        case '-':
            both = {l.ratio && r.ratio, l.length && r.length};
            if (!both.ratio && !both.length) fail("measure.length-and-ratio", node.at);
            return both;
        case '*':
            both = {l.ratio && r.ratio, (l.length && r.ratio) || (l.ratio && r.length)};
            if (!both.ratio && !both.length) fail("measure.area", node.at);
            return both;
        default:
            both = {(l.ratio && r.ratio) || (l.length && r.length), l.length && r.ratio};
            if (!both.ratio && !both.length) fail("measure.divided-by-length", node.at);
            return both;
    }
}

struct Reckoner {
    std::int64_t unit_nm;
    std::vector<std::size_t> bare_lengths;  // bytes after which the unit is to be written

    Rational value(const Node& node, Dimension want) {
        if (node.kind == '#') {
            if (node.has_unit || want == Dimension::Ratio) return node.value;
            bare_lengths.push_back(node.end);
            return node.value * unit_nm;
        }
        if (node.kind == 'n') return -value(*node.left, want);
        const auto [left, right] = sides(node, want);
        const Rational l = value(*node.left, left);
        const Rational r = value(*node.right, right);
        switch (node.kind) {
            case '+':
                return l + r;
            case '-':
                return l - r;
            case '*':
                return l * r;
            default:
                if (r == 0) fail("measure.zero-below", node.at);
                return l / r;
        }
    }

    static std::pair<Dimension, Dimension> sides(const Node& node, Dimension want) {
        using enum Dimension;
        if (node.kind == '+' || node.kind == '-') return {want, want};
        const Can l = possible(*node.left);
        const Can r = possible(*node.right);
        if (node.kind == '*') {
            if (want == Ratio) return {Ratio, Ratio};
            // Of two bare numbers the last is the length: "2*6" is two times six inches.
            return l.ratio && r.length ? std::pair{Ratio, Length} : std::pair{Length, Ratio};
        }
        if (want == Length) return {Length, Ratio};
        return l.ratio && r.ratio ? std::pair{Ratio, Ratio} : std::pair{Length, Length};
    }
};

std::string_view unit_name(Unit unit) { return unit == Unit::Inch ? "in" : "mm"; }

std::string trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t");
    const auto last = text.find_last_not_of(" \t");
    return first == std::string_view::npos ? "" : std::string(text.substr(first, last - first + 1));
}

}  // namespace

tl::expected<Measure, Misread> read_measure(std::string_view text, Unit field_unit) {
    if (text.size() > longest_text) return tl::unexpected(Misread{"measure.too-long", longest_text});
    try {
        std::string typed = trimmed(text);
        const Tree tree = Parser(typed).parse();
        if (!possible(*tree).length) return tl::unexpected(Misread{"measure.bare-ratio", 0});
        Reckoner reckoner{field_unit == Unit::Inch ? inch_nm : 1'000'000, {}};
        const Rational exact = reckoner.value(*tree, Dimension::Length);
        if (abs(exact) > largest_nm) return tl::unexpected(Misread{"measure.too-large", 0});
        const Whole twice = numerator(exact) * 2;
        const Whole below = denominator(exact);
        const Whole rounded = (abs(twice) + below) / (2 * below);
        const auto nm = static_cast<std::int64_t>(rounded) * (exact < 0 ? -1 : 1);
        std::sort(reckoner.bare_lengths.rbegin(), reckoner.bare_lengths.rend());
        for (const std::size_t at : reckoner.bare_lengths) typed.insert(at, fmt::format(" {}", unit_name(field_unit)));
        // As it is kept it has to be read again.
        if (typed.size() > longest_text) return tl::unexpected(Misread{"measure.too-long", longest_text});
        return Measure{std::move(typed), Length::nanometres(nm)};
    } catch (const Failure& failure) {
        return tl::unexpected(failure.misread);
    }
}

std::string show_number(Length length, const Display& display) {
    const std::int64_t size = std::abs(length.nm());
    if (display.unit == Unit::Millimetre) {
        const std::int64_t tenths = (size + 50'000) / 100'000;
        const bool exact = tenths * 100'000 == size;
        const std::string sign = length.nm() < 0 && tenths != 0 ? "-" : "";
        std::string number =
            tenths % 10 == 0 ? fmt::format("{}", tenths / 10) : fmt::format("{}.{}", tenths / 10, tenths % 10);
        return (exact ? "" : "≈ ") + sign + number;
    }
    const std::int64_t step = Length::nm_per_inch / display.denominator;
    const std::int64_t steps = (size + step / 2) / step;
    const bool exact = steps * step == size;
    const std::int64_t whole = steps / display.denominator;
    const std::int64_t over = steps % display.denominator;
    const std::int64_t divisor = std::gcd(over, std::int64_t{display.denominator});
    const std::string sign = length.nm() < 0 && steps != 0 ? "-" : "";
    std::string number;
    if (over == 0) {
        number = fmt::format("{}", whole);
    } else if (whole == 0) {
        number = fmt::format("{}/{}", over / divisor, display.denominator / divisor);
    } else {
        number = fmt::format("{} {}/{}", whole, over / divisor, display.denominator / divisor);
    }
    return (exact ? "" : "≈ ") + sign + number;
}

std::string show(Length length, const Display& display) {
    return fmt::format("{} {}", show_number(length, display), unit_name(display.unit));
}

Measure measure_of(Length length, const Display& display) {
    const auto shown_exactly = [&](const Display& as) { return !show_number(length, as).starts_with("≈"); };
    for (const Display& as : {display, Display{Unit::Inch, 64}, Display{Unit::Millimetre, 16}}) {
        if (shown_exactly(as)) return {show(length, as), length};
    }
    return {fmt::format("{}{}.{:06} mm", length.nm() < 0 ? "-" : "", std::abs(length.nm()) / 1'000'000,
                        std::abs(length.nm()) % 1'000'000),
            length};
}

std::string with_fraction_slash(std::string_view shown) {
    std::string out;
    for (std::size_t i = 0; i < shown.size(); ++i) {
        const bool between = shown[i] == '/' && i > 0 && i + 1 < shown.size() && std::isdigit(shown[i - 1]) != 0 &&
                             std::isdigit(shown[i + 1]) != 0;
        out += between ? "⁄" : std::string(1, shown[i]);
    }
    return out;
}

}  // namespace skarvel
