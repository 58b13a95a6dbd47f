// Merge, subtract and grow against GEOS on the same polygons: areas within 0.01 %, the same number of parts and holes.
#include <geos_c.h>

#include <cstdarg>

#include "blank/blank.h"
#include "geometry/outline.h"
#include "support.h"

using namespace skarvel;
using namespace skarvel::testing;

namespace {

class Geos {
  public:
    Geos() : h_(GEOS_init_r()) {}
    ~Geos() { GEOS_finish_r(h_); }
    Geos(const Geos&) = delete;
    Geos& operator=(const Geos&) = delete;

    // In millimetres; parts with their holes.
    GEOSGeometry* from(const Region& region) const {
        std::vector<GEOSGeometry*> polygons;
        for (const Region& part : islands(region)) {
            GEOSGeometry* shell = nullptr;
            std::vector<GEOSGeometry*> inner;
            double largest = -1;
            std::vector<std::pair<double, GEOSGeometry*>> rings;
            for (const Ring& ring : part.rings()) {
                GEOSGeometry* made = linear(ring);
                rings.emplace_back(Region::from_rings({ring}).area_mm2(), made);
            }
            for (const auto& [area, ring] : rings) {
                if (area > largest) {
                    if (shell != nullptr) inner.push_back(shell);
                    shell = ring;
                    largest = area;
                } else {
                    inner.push_back(ring);
                }
            }
            polygons.push_back(GEOSGeom_createPolygon_r(h_, shell, inner.data(), static_cast<unsigned>(inner.size())));
        }
        return GEOSGeom_createCollection_r(h_, GEOS_MULTIPOLYGON, polygons.data(),
                                           static_cast<unsigned>(polygons.size()));
    }

    double area(const GEOSGeometry* g) const {
        double a = 0;
        GEOSArea_r(h_, g, &a);
        return a;
    }
    double perimeter(const GEOSGeometry* g) const {
        double l = 0;
        GEOSLength_r(h_, g, &l);
        return l;
    }
    /// As GEOS sees it, not as it was handed over: what touches is one.
    int joined_parts(const GEOSGeometry* g) const {
        GEOSGeometry* joined = GEOSUnaryUnion_r(h_, g);
        const int count = parts(joined);
        GEOSGeom_destroy_r(h_, joined);
        return count;
    }
    int parts(const GEOSGeometry* g) const { return GEOSisEmpty_r(h_, g) == 1 ? 0 : GEOSGetNumGeometries_r(h_, g); }
    int hole_count(const GEOSGeometry* g) const {
        int n = 0;
        for (int i = 0; i < parts(g); ++i) n += GEOSGetNumInteriorRings_r(h_, GEOSGetGeometryN_r(h_, g, i));
        return n;
    }
    GEOSContextHandle_t operator*() const { return h_; }

  private:
    GEOSGeometry* linear(const Ring& ring) const {
        GEOSCoordSequence* s = GEOSCoordSeq_create_r(h_, static_cast<unsigned>(ring.size()) + 1, 2);
        for (std::size_t i = 0; i <= ring.size(); ++i) {
            const Point p = ring[i % ring.size()];
            GEOSCoordSeq_setXY_r(h_, s, static_cast<unsigned>(i), grid_to_mm(p.x), grid_to_mm(p.y));
        }
        return GEOSGeom_createLinearRing_r(h_, s);
    }
    GEOSContextHandle_t h_;
};

struct Owned {
    const Geos& geos;
    GEOSGeometry* g;
    ~Owned() { GEOSGeom_destroy_r(*geos, g); }
};

Region glyph(const std::string& text, const TypefaceName& name, double mm) {
    const Typeface& t = *find_typeface(library().typefaces, name);
    const auto letters = shape(t, text);
    std::vector<Region> shapes;
    for (const ShapedLetter& l : letters) {
        const double f = mm / t.units_per_em;
        shapes.push_back(flatten(l.outline, f, f).moved({std::llround(l.x * f * 8000), 0}));
    }
    return merge(shapes);
}

// Letters of any shipped typeface, or a star with random points.
Region some_shape() {
    if (*rc::gen::arbitrary<bool>()) {
        const auto& typefaces = library().typefaces;
        const auto& t = typefaces.at(*rc::gen::inRange<std::size_t>(0, typefaces.size()));
        const std::string words[] = {"B", "O", "Sg", "&", "am", "Qu", "R8"};
        return glyph(words[*rc::gen::inRange(0, 7)], t.name, *rc::gen::inRange(20, 200));
    }
    Ring ring;
    const auto n = *rc::gen::inRange(3, 30);
    for (int i = 0; i < n; ++i) {
        const double r = *rc::gen::inRange(5'000, 80'000) * 8.0;
        const double a = 2 * 3.14159265358979 * i / n;
        ring.push_back({std::llround(r * std::cos(a)), std::llround(r * std::sin(a))});
    }
    return Region::from_rings({ring});
}

// Both round every new corner to a grid of their own, so outlines differ by up to a step all the way round: a thin
// shape may gain or lose (perimeter x step) of area, and a neck no wider than a few steps may join or part. The number
// of parts is therefore compared where a few steps more or less of film would not change it.
void same(const Geos& geos, const Region& ours, const GEOSGeometry* theirs) {
    constexpr double step = 0.000125;  // mm
    const double area = geos.area(theirs);
    RC_ASSERT(std::abs(ours.area_mm2() - area) <= 1e-6 + 2 * step * geos.perimeter(theirs));
    const auto real_parts = [&](const GEOSGeometry* g) {
        int parts = 0;
        for (int i = 0; i < geos.parts(g); ++i) parts += geos.area(GEOSGetGeometryN_r(*geos, g, i)) > 1e-4 ? 1 : 0;
        return parts;
    };
    const Owned thinner{geos, GEOSBuffer_r(*geos, theirs, -4 * step, 4)};
    const Owned fuller{geos, GEOSBuffer_r(*geos, theirs, 4 * step, 4)};
    if (real_parts(thinner.g) != real_parts(fuller.g)) return;
    const auto parts = islands(ours);
    const auto real = std::count_if(parts.begin(), parts.end(), [](const Region& r) { return r.area_mm2() > 2e-4; });
    const auto any = std::count_if(parts.begin(), parts.end(), [](const Region& r) { return r.area_mm2() > 5e-5; });
    const int expected = real_parts(theirs);
    RC_ASSERT(real <= expected);
    RC_ASSERT(expected <= any);
}

}  // namespace

TEST_CASE("merge, subtract and intersect agree with GEOS on typeface outlines and random polygons") {
    const Geos geos;
    CHECK(rc::check([&] {
        const Region a = some_shape();
        const Region b =
            some_shape().moved({*rc::gen::inRange(-300'000, 300'000), *rc::gen::inRange(-300'000, 300'000)});
        RC_PRE(!a.empty() && !b.empty());
        const Owned ga{geos, geos.from(a)};
        const Owned gb{geos, geos.from(b)};
        RC_ASSERT(GEOSisValid_r(*geos, ga.g) == 1);
        RC_ASSERT(a.area_mm2() == Approx(geos.area(ga.g)).epsilon(1e-6));
        const Owned merged{geos, GEOSUnion_r(*geos, ga.g, gb.g)};
        const Owned subtracted{geos, GEOSDifference_r(*geos, ga.g, gb.g)};
        const Owned common_part{geos, GEOSIntersection_r(*geos, ga.g, gb.g)};
        same(geos, merge(a, b), merged.g);
        same(geos, subtract(a, b), subtracted.g);
        same(geos, intersect(a, b), common_part.g);
    }));
}

TEST_CASE("holes of every shipped letter are those that GEOS finds") {
    const Geos geos;
    for (const Typeface& t : library().typefaces) {
        for (const char* letter : {"A", "B", "O", "R", "e", "g", "8", "&"}) {
            const Region r = glyph(letter, t.name, 100);
            const Owned g{geos, GEOSUnaryUnion_r(*geos, geos.from(r))};
            INFO(t.name.family << " " << t.name.style << " " << letter);
            CHECK(static_cast<int>(holes(r).size()) == geos.hole_count(g.g));
            CHECK(GEOSisValid_r(*geos, g.g) == 1);
        }
    }
}

TEST_CASE("growing agrees with GEOS's buffer to perimeter times arc tolerance") {
    const Geos geos;
    CHECK(rc::check([&] {
        const Region a = some_shape();
        RC_PRE(!a.empty());
        const double by = *rc::gen::inRange(1, 30) / 10.0;
        const Owned ga{geos, geos.from(a)};
        const Owned buffered{geos, GEOSBuffer_r(*geos, ga.g, by, 64)};
        const Owned ours{geos, geos.from(grow(a, Length::from_mm(by)))};
        const Owned differs{geos, GEOSSymDifference_r(*geos, buffered.g, ours.g)};
        constexpr double arc_tolerance = 0.01;
        RC_ASSERT(geos.area(differs.g) <= geos.perimeter(buffered.g) * arc_tolerance * 1.5 + 1e-3);
    }));
}

TEST_CASE("what a blank leaves free, against GEOS") {
    const Geos geos;
    CHECK(rc::check([&] {
        Blank b;
        b.kind = *rc::gen::element(Kind::Panel, Kind::Round, Kind::Arrow, Kind::Arch);
        b.length = measure("30");
        b.width = measure("12");
        b.margin = measure("0");
        const auto some = [](int low, int high) {
            return measure_of(Length::sixtyfourths(*rc::gen::inRange(low, high)), {});
        };
        for (int i = *rc::gen::inRange(1, 4); i > 0; --i) {
            ClearZone zone;
            zone.shape = *rc::gen::element(ZoneShape::Circle, ZoneShape::Rectangle, ZoneShape::Band);
            zone.edge = *rc::gen::element(Edge::Top, Edge::Bottom, Edge::Left, Edge::Right);
            zone.depth = some(8, 200);
            zone.x = some(0, 900);
            zone.y = some(0, 1500);
            zone.width = some(20, 400);
            zone.height = some(20, 400);
            zone.mirrored = *rc::gen::arbitrary<bool>();
            b.clear.push_back(zone);
        }
        const BlankPlan p = measure_up(b, {}, {});
        Owned outline{geos, geos.from(p.outline)};
        Owned zones{geos, geos.from(merge(p.zones))};
        Owned free{geos, GEOSDifference_r(*geos, outline.g, zones.g)};
        RC_ASSERT(std::abs(geos.area(free.g) - p.free.area_mm2()) <= 1e-4 * p.outline.area_mm2());
        // The room for lettering lies in what GEOS finds free.
        if (p.usable.empty()) return;
        Owned room{geos, geos.from(Region::rectangle(p.usable))};
        Owned beyond{geos, GEOSDifference_r(*geos, room.g, free.g)};
        RC_ASSERT(geos.area(beyond.g) <= 1e-5 * geos.area(room.g) + 0.01);
    }));
}

TEST_CASE("a mask with ties is one part, and what hangs loose without them is what GEOS finds") {
    const Geos geos;
    for (const char* words : {"BOATHOUSE", "Rope & Dog 8", "ABDOPQR 0689 @"}) {
        for (const auto& [family, style] :
             {std::pair("League Spartan", "Bold"), std::pair("Goudy Bookletter 1911", "Regular"),
              std::pair("Old Standard TT", "Bold")}) {
            CAPTURE(words, family);
            Job job = panel_job(words, "22", "8");
            lettering(job).typeface = typeface(family, style);
            making(job).film = "reusable-sheet";
            const auto film_of = [](const Section& s) { return subtract(s.film, s.cut); };
            making(job).tie = Measure{};
            int loose = 0;
            const Plan without = plan_of(job);
            for (const Section& s : without.colours.front().cut.loads->sections) {
                const Owned film{geos, geos.from(film_of(s))};
                loose += geos.joined_parts(film.g) - 1;
            }
            CHECK(without.colours.front().cut.loads->keepers == loose);
            making(job).tie = measure("1/8");
            const Plan tied = plan_of(job);
            for (const Section& s : tied.colours.front().cut.loads->sections) {
                const Owned film{geos, geos.from(film_of(s))};
                CHECK(geos.joined_parts(film.g) == 1 + static_cast<int>(s.keepers.size()));
                // A bridge is as wide as was asked, and no wider.
                for (const Region& tie : s.ties) {
                    const Box b = tie.bounds();
                    CHECK(std::min(b.width(), b.height()) <= to_grid(0.125_in) + 2);
                }
            }
        }
    }
}
