// Doors that need little of the core behind them.
#include <algorithm>

#include "drawing/drawing_file.h"
#include "drawing/outline_file.h"
#include "files/weather.h"
#include "fuzz/readers.h"
#include "lettering/typeface.h"
#include "measure/reading.h"
#include "proof/reading.h"
#include "text/when.h"

namespace skarvel::fuzz {

Moment some_evening() { return read_moment("2026-05-04T18:00").value(); }

namespace {

void measure(const std::string& bytes) {
    for (const Unit unit : {Unit::Inch, Unit::Millimetre}) {
        const auto read = read_measure(bytes, unit);
        if (!read) continue;
        const auto again = read_measure(read->typed, unit);
        must(again && again->value == read->value);
        (void)show(read->value, {});
        (void)measure_of(read->value, {});
    }
}

void weather(const std::string& bytes) {
    const auto days = read_weather(bytes, some_evening());
    if (!days) return;
    must(!days->empty() && days->size() <= most_days_of_weather);
    for (const DayRoom& d : *days) must(d.celsius >= -50 && d.celsius <= 60 && d.humidity >= 0 && d.humidity <= 100);
}

// Moments as they are typed, and what a plan makes of a clock that shows them.
void when(const std::string& bytes) {
    const auto read = read_when(bytes, some_evening());
    if (!read) return;
    std::string written = write_moment(*read);
    std::replace(written.begin(), written.end(), 'T', ' ');
    const auto again = read_when(written, some_evening());
    must(!again || *again == *read);
}

void drawing(const std::string& bytes) { (void)read_drawing_file(bytes, "drawing"); }

void outline(const std::string& bytes) { (void)read_outline(bytes, "outline"); }

void picture(const std::string& bytes) {
    if (bytes.size() < 4) return;
    const int width = 1 + static_cast<unsigned char>(bytes[0]);
    GreyPicture grey{width, static_cast<int>(bytes.size() - 4) / width, {bytes.begin() + 4, bytes.end()}};
    const TraceWish wish{static_cast<unsigned char>(bytes[1]), static_cast<unsigned char>(bytes[2]),
                         static_cast<unsigned char>(bytes[3]) / 2, (bytes[3] & 1) != 0};
    (void)trace(grey, wish, Length::from_mm(100));
}

void typeface(const std::string& bytes) { (void)read_typeface(std::make_shared<const std::string>(bytes)); }

void cut_file(const std::string& bytes) {
    if (bytes.empty()) return;
    // The first byte says which kind, and whether the knife trails.
    const auto kind = static_cast<unsigned char>(bytes.front());
    Knife trailing;
    trailing.offset = Length::from_mm(0.25);
    trailing.overcut = Length::from_mm(0.5);
    (void)read_cut_file(bytes.substr(1), "cut", static_cast<CutFormat>(kind % 3), kind >= 128 ? trailing : Knife{});
}

}  // namespace

const std::vector<Reader>& readers_of_bytes() {
    static const std::vector<Reader> all{{"measure", measure}, {"drawing", drawing},   {"outline", outline},
                                         {"picture", picture}, {"typeface", typeface}, {"cut-file", cut_file},
                                         {"weather", weather}, {"when", when}};
    return all;
}

}  // namespace skarvel::fuzz
