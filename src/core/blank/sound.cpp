#include "blank/sound.h"

namespace skarvel {
namespace {

class Checked {
  public:
    explicit Checked(std::vector<Problem>& problems) : problems_(problems) {}

    void say(Mark mark, const char* what, std::vector<std::pair<std::string, Argument>> arguments = {},
             const char* remedy = nullptr) {
        problems_.push_back(
            {{what, std::move(arguments)}, Station::Blank, remedy == nullptr ? Reason{} : Reason{remedy, {}}, mark});
    }
    /// Something that may be missing, but not less than it must be.
    void measure(std::optional<Measure>& m, const char* what, bool nothing_too) {
        if (!m || m->value > Length{} || (nothing_too && m->value == Length{})) return;
        say(Mark::Look, "blank.cannot-measure", {{"what", std::vector<Reason>{{what, {}}}}, {"typed", m->value}});
        m.reset();
    }
    /// At least nothing.
    void at_least_nothing(Measure& m, const char* what) {
        std::optional<Measure> one = m;
        measure(one, what, true);
        if (!one) m = Measure{"0 in", {}};
    }

  private:
    std::vector<Problem>& problems_;
};

void check_zones(Blank& blank, Checked& checked) {
    for (ClearZone& zone : blank.clear) {
        if (zone.shape != ZoneShape::Band) {
            const bool flat = zone.shape == ZoneShape::Rectangle && zone.height.value <= Length{};
            if (zone.width.value <= Length{} || flat)
                checked.say(Mark::Look, "blank.zone-nothing", {{"name", zone.name}}, "blank.zone-size");
            continue;
        }
        if (zone.turns > 0 && zone.girth.value <= Length{})
            checked.say(Mark::Look, "blank.rope-no-girth", {{"name", zone.name}}, "blank.rope-girth");
        if (zone.turns <= 0 && zone.depth.value < Length{})
            checked.say(Mark::Look, "blank.zone-nothing", {{"name", zone.name}}, "blank.zone-size");
    }
}

void check_frame(Blank& blank, Checked& checked) {
    Frame& f = blank.frame;
    if (f.kind == FrameKind::None) return;
    checked.measure(f.depth, "measure.frame-depth", false);
    checked.at_least_nothing(f.rebate, "measure.rebate");
    checked.at_least_nothing(f.clearance, "measure.clearance");
    if (f.seen.value <= Length{}) {
        checked.say(Mark::Stop, "frame.seen-nothing", {}, "frame.seen-type");
        f.kind = FrameKind::None;
    } else if (f.kind == FrameKind::Mitred && f.rebate.value >= f.seen.value) {
        checked.say(Mark::Stop, "frame.rebate-wide", {{"rebate", f.rebate.value}, {"seen", f.seen.value}},
                    "frame.rebate-smaller");
        f.rebate = Measure{"0 in", {}};
    }
    if (blank.backing && goes_round(f.kind) && f.size_is != SizeIs::Bare) {
        checked.say(Mark::Look, "frame.round-backing");
        f.size_is = SizeIs::Bare;
    }
}

}  // namespace

Blank sound(Blank blank, const std::vector<StockSize>& sizes, std::vector<Problem>& problems) {
    Checked checked(problems);
    checked.measure(blank.thickness, "measure.thickness", false);
    checked.at_least_nothing(blank.margin, "measure.margin");
    for (auto& side : blank.side_margin) checked.measure(side, "measure.margin", true);
    if (blank.kind == Kind::Canvas) checked.measure(blank.bars, "measure.bars", false);
    if (blank.kind == Kind::Field) checked.measure(blank.moulding, "measure.moulding", false);
    checked.at_least_nothing(blank.holding.under, "measure.under");
    checked.at_least_nothing(blank.holding.base, "measure.base");
    if (blank.tape.tolerance.value <= Length{}) {
        blank.tape.tolerance = Readings{}.tolerance;
        checked.say(Mark::Look, "blank.tape-exact", {{"by", blank.tape.tolerance.value}});
    }
    for (std::size_t i = 0; i < reading_count; ++i) {
        const std::string name = name_of(static_cast<Reading>(i));
        checked.measure(blank.tape.taken.at(i), name.c_str(), false);
    }
    if (blank.backing) {
        const Backing& b = *blank.backing;
        if (std::min({b.length.value, b.width.value, b.thickness.value}) <= Length{}) {
            checked.say(Mark::Look, "blank.backing-nothing", {}, "blank.backing-size");
            blank.backing.reset();
        }
    }
    check_zones(blank, checked);
    check_frame(blank, checked);
    const StockSize* stock = blank.kind == Kind::Board ? find_stock(sizes, blank.stock) : nullptr;
    if (stock != nullptr && blank.width && blank.width->value > Length{} &&
        blank.width->value != stock->nominal_width) {
        // Boards differ from their table by no more than a planing.
        const Length off = blank.width->value - stock->width;
        if (off > 0.5_in || off < -0.5_in)
            checked.say(Mark::Look, "blank.not-that-stock",
                        {{"stock", shown_name(blank.stock)}, {"typed", blank.width->value}, {"real", stock->width}},
                        "blank.measured-or-other-stock");
    }
    return blank;
}

}  // namespace skarvel
