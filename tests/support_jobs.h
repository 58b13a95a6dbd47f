// Jobs of every kind that is cut in one pass: blanks, art, rims, typefaces, beds, films, ways.
#pragma once

#include <rapidcheck.h>

#include "job/face_commands.h"
#include "support.h"

namespace skarvel::testing {

inline Job any_job() {
    Job job = panel_job("");
    const auto inches = [](int least, int most) {
        return measure_of(Length::sixtyfourths(*rc::gen::inRange(64 * least, 64 * most)), {Unit::Inch, 64});
    };
    Blank& blank = job.signs.front().blank;
    blank.kind = *rc::gen::element(Kind::Panel, Kind::Canvas, Kind::Round);
    blank.length = inches(10, 50);
    blank.width = blank.kind == Kind::Round ? blank.length : inches(8, 30);
    blank.margin = measure("1");
    const Way way = *rc::gen::element(Way::Decal, Way::PaintThrough);
    make_as(making(job), way, library().trade);
    making(job).lap = measure(*rc::gen::element("1/16", "1/8", "1/4"));
    std::vector<Mat> beds = beds_of(usual_shop().machines);
    std::erase_if(beds, [](const Mat& m) { return m.print.has_value(); });
    making(job).bed = bed_name(beds.at(*rc::gen::inRange<std::size_t>(0, beds.size())));
    Text& text = lettering(job);
    text.words =
        *rc::gen::element<std::string>("OAR", "TERN QUAY", "Low Tide\nSlipway", "for the\nferry", "A8B%", "ROPE & TAR");
    text.typeface = *rc::gen::element(typeface("League Spartan", "Bold"), typeface("Lobster Two", "Bold"),
                                      typeface("Dancing Script", "Bold"), typeface("Goudy Bookletter 1911"));
    text.line_gap = measure("1/2");
    if (*rc::gen::arbitrary<bool>()) {
        job = add_colour(job, {0, 0});
        Face& face = job.signs.front().faces.front();
        make_as(face.colours.back().making, way, library().trade);
        face.colours.back().making.lap = making(job).lap;
        face.colours.back().making.bed = making(job).bed;
        Text& rimmed = lettering(job);
        rimmed.rim = Rim{};
        rimmed.rim->width = measure("1/8");
        rimmed.rim->under = *rc::gen::arbitrary<bool>();
        rimmed.rim->colour = first_colour;
        rimmed.colour = face.colours.back().id;
    }
    if (*rc::gen::arbitrary<bool>()) {
        Border border;
        border.inset = measure("3/8");
        border.thickness = measure(*rc::gen::element("1/4", "3/8"));
        border.corner = *rc::gen::element(Corner::Square, Corner::Round);
        border.corner_size = measure("1");
        job = add_art(job, {0, 0}, border, library().typefaces);
    }
    return job;
}

// A word of vinyl with a rim of another colour behind it.
inline Job rimmed_decal() {
    Job job = panel_job("OAR", "20", "8");
    job = add_colour(job, {0, 0});
    Face& face = face_of(job);
    for (Colour& c : face.colours) make_as(c.making, Way::Decal, library().trade);
    Text& text = lettering(job);
    text.colour = face.colours.back().id;
    text.rim = Rim{};
    text.rim->width = measure("1/8");
    text.rim->colour = face.colours.front().id;
    return job;
}

}  // namespace skarvel::testing
