// files/job_description.h
//
// What the job file and the shop's file hold: one description for each struct (files/description.h).
#pragma once

#include "files/description.h"
#include "files/job_file.h"

namespace skarvel::description {

/// Fields that take more than a member: what is kept of a drawing, and pieces bound in lists of their own.
struct KeptDrawing;
struct BoundPieces;

// ---- blank

template <>
struct Described<ClearZone> {
    static constexpr const char* name = "clearZone";
    static constexpr Listed fields{
        must("name", &ClearZone::name),
        may("reason", &ClearZone::reason),
        may("shape", &ClearZone::shape),
        may("edge", &ClearZone::edge),
        may("depth", &ClearZone::depth),
        may("x", &ClearZone::x),
        may("y", &ClearZone::y),
        may("width", &ClearZone::width),
        may("height", &ClearZone::height),
        may("mirrored", &ClearZone::mirrored),
        may("turns", &ClearZone::turns, from_to(0, 1000)),
        may("girth", &ClearZone::girth),
    };
    static void settle(const Object& o, const ClearZone& zone) {
        if (zone.shape == ZoneShape::Band) {
            if (zone.turns == 0) (void)o.at("depth");
        } else {
            for (const char* key : {"x", "y", "width"}) (void)o.at(key);
        }
    }
};

template <>
struct Described<PaintedField> {
    static constexpr const char* name = "paintedField";
    static constexpr Listed fields{
        must("border", &PaintedField::border),
        must("along", &PaintedField::along),
        may("middle", &PaintedField::middle),
        must("depth", &PaintedField::depth),
        must("colour", &PaintedField::colour, a_colour),
        may("colourName", &PaintedField::colour_name),
        must("lettered", &PaintedField::lettered),
    };
};

template <>
struct Described<Guide> {
    static constexpr const char* name = "guide";
    static constexpr Listed fields{
        must("along", &Guide::along),
        must("where", &Guide::where),
        must("name", &Guide::name),
    };
};

template <>
struct Described<Readings> {
    static constexpr const char* name = "tapeReadings";
    static constexpr Listed fields{
        by_word<Reading>(&Readings::taken),
        must("tolerance", &Readings::tolerance),
    };
};

template <>
struct Described<Frame> {
    static constexpr const char* name = "frame";
    static constexpr Listed fields{
        must("kind", &Frame::kind),     must("stock", &Frame::stock),         must("seen", &Frame::seen),
        must("rebate", &Frame::rebate), must("clearance", &Frame::clearance), must("sizeIs", &Frame::size_is),
        must("raised", &Frame::raised), must("before", &Frame::before),       may("depth", &Frame::depth),
    };
};

template <>
struct Described<Holding> {
    static constexpr const char* name = "holding";
    static constexpr Listed fields{
        must("way", &Holding::way),
        must("base", &Holding::base),
        must("under", &Holding::under),
        must("ballastGrams", &Holding::ballast_grams, from_to(0, 10'000'000)),
    };
};

template <>
struct Described<ArrowHead> {
    static constexpr const char* name = "arrowHead";
    static constexpr Listed fields{
        must("length", &ArrowHead::length),
        must("height", &ArrowHead::height),
        must("overlap", &ArrowHead::overlap),
        either("points", &ArrowHead::right, "left", "right"),
    };
};

template <>
struct Described<ArchTop> {
    static constexpr const char* name = "archTop";
    static constexpr Listed fields{
        must("style", &ArchTop::style),
        must("rise", &ArchTop::rise),
    };
};

template <>
struct Described<DrawnOutline> {
    static constexpr const char* name = "outline";
    static constexpr Listed fields{
        must("shape", &DrawnOutline::drawn),
        must("known", &DrawnOutline::known),
        either("of", &DrawnOutline::by_width, "height", "width"),
        may("source", &DrawnOutline::source),
    };
};

template <>
struct Described<Backing> {
    static constexpr const char* name = "backing";
    static constexpr Listed fields{
        must("length", &Backing::length),
        must("width", &Backing::width),
        must("thickness", &Backing::thickness),
        must("material", &Backing::material),
    };
};

template <>
struct Described<Blank> {
    static constexpr const char* name = "blank";
    static constexpr Listed fields{
        always("kind", &Blank::kind),
        may("stock", &Blank::stock),
        may("length", &Blank::length),
        may("width", &Blank::width),
        may("thickness", &Blank::thickness),
        must("stands", &Blank::stands),
        may("head", &Blank::head),
        may("arch", &Blank::arch),
        may("outline", &Blank::outline),
        may("bars", &Blank::bars),
        may("moulding", &Blank::moulding),
        may("backing", &Blank::backing),
        must("material", &Blank::material),
        may("grain", &Blank::grain),
        must("surface", &Blank::surface),
        may("grit", &Blank::grit, from_to(0, 5000)),
        may("finished", &Blank::finished),
        may("already", &Blank::already),
        may("alreadyHours", &Blank::already_hours, from_to(0, 1'000'000)),
        may("sawn", &Blank::sawn),
        may("fromBehind", &Blank::from_behind),
        may("tape", &Blank::tape),
        must("margin", &Blank::margin),
        under("margins", by_word<Edge>(&Blank::side_margin)),
        must("clearZones", &Blank::clear),
        may("fields", &Blank::fields),
        may("guides", &Blank::guides),
        may("frame", &Blank::frame),
        may("holding", &Blank::holding),
    };
    static void settle(const Object& o, const Blank& blank) {
        if (blank.kind != Kind::Drawn) (void)o.at("length");
    }
};

// ---- lettering and art

template <>
struct Described<TypefaceName> {
    static constexpr const char* name = "typeface";
    static constexpr Listed fields{
        must("family", &TypefaceName::family),
        must("style", &TypefaceName::style),
        may("checksum", &TypefaceName::checksum),
    };
};

template <>
struct Described<Hang> {
    static constexpr const char* name = "hang";
    static constexpr Listed fields{
        must("on", &Hang::on),
        must("its", &Hang::its),
        must("mine", &Hang::mine),
        must("by", &Hang::by),
    };
};

template <>
struct Described<Arc> {
    static constexpr const char* name = "arc";
    static constexpr Listed fields{
        either("side", &Arc::below, "above", "below"),
        must("follow", &Arc::follow),
        must("distance", &Arc::distance),
        must("radius", &Arc::radius),
        must("sweep", &Arc::sweep, from_to(5, 350)),
    };
};

template <>
struct Described<Nudge> {
    static constexpr const char* name = "nudge";
    static constexpr Listed fields{
        must("letter", &Nudge::letter, from_to(0, 1'000'000)),
        must("x", &Nudge::x),
        must("y", &Nudge::y),
    };
};

template <>
struct Described<Rim> {
    static constexpr const char* name = "rim";
    static constexpr Listed fields{
        must("width", &Rim::width),     must("colour", &Rim::colour), must("under", &Rim::under),
        must("overlap", &Rim::overlap), must("inner", &Rim::inner),
    };
};

template <>
struct Described<Text> {
    static constexpr const char* name = "text";
    static constexpr Listed fields{
        must("id", &Text::id),
        must("words", &Text::words),
        must("typeface", &Text::typeface),
        must("arrangement", &Text::arrangement),
        must("sizing", &Text::sizing),
        must("size", &Text::size),
        must("letterGap", &Text::letter_gap),
        must("lineGap", &Text::line_gap),
        may("widthPercent", &Text::width_percent, from_to(10, 1000)),
        may("alternates", &Text::alternates),
        may("bolder", &Text::bolder),
        may("even", &Text::even),
        may("leastGap", &Text::least_gap),
        may("slopeTenths", &Text::slope_tenths, from_to(-900, 900)),
        may("arc", &Text::arc),
        may("toShape", &Text::to_shape),
        may("across", &Text::across),
        may("up", &Text::up),
        may("keepsPlace", &Text::keeps_place),
        may("locked", &Text::locked),
        may("nudges", &Text::nudges),
        must("colour", &Text::colour),
        may("rim", &Text::rim),
    };
};

template <>
struct Described<Lettering> {
    static constexpr const char* name = "lettering";
    static constexpr Listed fields{
        must("texts", &Lettering::texts, not_empty),
        may("opticalCentre", &Lettering::optical_centre),
    };
    static void settle(const Object& o, const Lettering& lettering) {
        std::set<ThingId> ids;
        for (const Text& text : lettering.texts) {
            if (!ids.insert(text.id).second) refuse("file.same-id", o.path("texts"), text.id.name);
        }
    }
};

template <>
struct Described<Border> {
    static constexpr const char* name = "border";
    static constexpr Listed fields{
        must("inset", &Border::inset),   must("thickness", &Border::thickness),
        must("corner", &Border::corner), must("cornerSize", &Border::corner_size),
        must("twice", &Border::twice),
    };
};

template <>
struct Described<Corners> {
    static constexpr const char* name = "corners";
    static constexpr Listed fields{
        must("inset", &Corners::inset),
        must("size", &Corners::size),
        must("thickness", &Corners::thickness),
        must("style", &Corners::style),
    };
};

template <>
struct Described<RuledLine> {
    static constexpr const char* name = "line";
    static constexpr Listed fields{
        may("length", &RuledLine::length),
        must("thickness", &RuledLine::thickness),
        must("ends", &RuledLine::ends),
    };
};

template <>
struct Described<Banner> {
    static constexpr const char* name = "ribbon";
    static constexpr Listed fields{
        may("length", &Banner::length),
        must("height", &Banner::height),
        must("tails", &Banner::tails),
    };
};

template <>
struct Described<Figure> {
    static constexpr const char* name = "figure";
    static constexpr Listed fields{
        must("shape", &Figure::shape),
        must("width", &Figure::width),
        must("height", &Figure::height),
        may("line", &Figure::line),
    };
};

template <>
struct Described<HeightRuler> {
    static constexpr const char* name = "height-ruler";
    static constexpr Listed fields{
        must("aboveFloor", &HeightRuler::above_floor),
        must("metric", &HeightRuler::metric),
        must("right", &HeightRuler::right),
        must("longMark", &HeightRuler::long_mark),
        must("middleMark", &HeightRuler::middle_mark),
        must("shortMark", &HeightRuler::short_mark),
        must("thickness", &HeightRuler::thickness),
        must("numbers", &HeightRuler::numbers),
        must("typeface", &HeightRuler::typeface),
        must("numberHeight", &HeightRuler::number_height),
    };
};

template <>
struct Described<MonthBoard> {
    static constexpr const char* name = "month-board";
    static constexpr Listed fields{
        must("title", &MonthBoard::title),
        must("days", &MonthBoard::days),
        must("typeface", &MonthBoard::typeface),
        must("titleHeight", &MonthBoard::title_height),
        must("dayHeight", &MonthBoard::day_height),
        must("gap", &MonthBoard::gap),
        must("line", &MonthBoard::line),
        must("boxes", &MonthBoard::boxes),
    };
};

template <>
struct Described<DrawingPart> {
    static constexpr const char* name = "drawingPart";
    static constexpr Listed fields{
        must("shape", &DrawingPart::shape),
        must("colour", &DrawingPart::colour, a_colour),
        must("name", &DrawingPart::name),
    };
};

template <>
struct Described<FileDrawing> {
    static constexpr const char* name = "fileDrawing";
    static constexpr Listed fields{
        must("parts", &FileDrawing::parts),
        must("source", &FileDrawing::source),
        must("licence", &FileDrawing::licence),
        must("checksum", &FileDrawing::checksum),
    };
};

/// The drawing's own fields among those of how it is placed, and its picture under one key with what is left around it.
struct KeptDrawing {
    static void read(const Object& o, PlacedDrawing& into);
    static void write(const PlacedDrawing& from, Json& into);
    static void add_keys(std::set<std::string>& keys);
    static void add_schema(Schema& s, Json& object);
};

/// Parts of a drawing in colours of their own, as pairs of place and colour.
template <>
struct Value<std::map<std::size_t, ColourId>> {
    static std::map<std::size_t, ColourId> read(const Spot& spot, const Limits& = {});
    static Json write(const std::map<std::size_t, ColourId>& colours);
    static Json schema(Schema&, const Limits& = {}) {
        return {{"type", "array"},
                {"items",
                 {{"type", "array"},
                  {"items", {{{"type", "integer"}, {"minimum", 0}}, {{"type", "string"}}}},
                  {"minItems", 2},
                  {"maxItems", 2}}}};
    }
};

template <>
struct Described<PlacedDrawing> {
    static constexpr const char* name = "drawing";
    static constexpr Listed fields{
        KeptDrawing{},
        either("of", &PlacedDrawing::by_width, "height", "width"),
        must("size", &PlacedDrawing::size),
        must("mirrored", &PlacedDrawing::mirrored),
        must("fourCorners", &PlacedDrawing::four_corners),
        may("colours", &PlacedDrawing::colours),
        may("dropped", &PlacedDrawing::dropped),
    };
};

template <>
struct Described<Art> {
    static constexpr const char* name = "art";
    static constexpr Listed fields{
        must("id", &Art::id),         one_of("kind", "is", &Art::kind),
        must("colour", &Art::colour), may("across", &Art::across),
        may("up", &Art::up),          may("locked", &Art::locked),
    };
};

// ---- making and finish

template <>
struct Described<PieceName> {
    static constexpr const char* name = "piece";
    static constexpr Listed fields{
        must("letters", &PieceName::letters),
        must("first", &PieceName::first, from_to(0, 1'000'000)),
        must("nth", &PieceName::nth, from_to(0, 1'000'000)),
    };
};

/// Lists of pieces, each an object that may say more of them one day.
template <>
struct Value<std::vector<std::vector<PieceName>>> {
    static std::vector<std::vector<PieceName>> read(const Spot& spot, const Limits& = {});
    static Json write(const std::vector<std::vector<PieceName>>& lists);
    static Json schema(Schema& s, const Limits& = {}) {
        return {{"type", "array"},
                {"items",
                 {{"type", "object"},
                  {"additionalProperties", false},
                  {"required", {"pieces"}},
                  {"properties", {{"pieces", Value<std::vector<PieceName>>::schema(s)}}}}}};
    }
};

template <>
struct Described<SeamWish> {
    static constexpr const char* name = "seamWish";
    static constexpr Listed fields{
        either("wish", &SeamWish::never, "here", "never"),
        must("along", &SeamWish::axis),
        must("at", &SeamWish::at),
        may("around", &SeamWish::around),
        may("from", &SeamWish::from),
        may("to", &SeamWish::to),
    };
};

template <>
struct Described<Wishes> {
    static constexpr const char* name = "wishes";
    static constexpr Listed fields{
        may("bound", &Wishes::bound),
        may("apart", &Wishes::apart),
        may("seams", &Wishes::seams),
        may("wholeMargins", &Wishes::whole_margins),
        may("anyAngle", &Wishes::any_angle),
        may("partWords", &Wishes::part_words),
        may("copies", &Wishes::copies, from_to(0, 1000)),
        may("laidSoonest", &Wishes::laid_soonest),
        may("masksAgain", &Wishes::masks_again),
    };
};

template <>
struct Described<Making> {
    static constexpr const char* name = "making";
    static constexpr Listed fields{
        must("way", &Making::way),         must("film", &Making::film),
        must("tool", &Making::tool),       may("margin", &Making::margin),
        must("lap", &Making::lap),         may("tie", &Making::tie),
        may("bed", &Making::bed),          may("wishes", &Making::wishes),
        may("layFrom", &Making::lay_from), may("maskByMask", &Making::mask_by_mask),
    };
};

template <>
struct Described<CoatChoice> {
    static constexpr const char* name = "coat";
    static constexpr Listed fields{
        must("coat", &CoatChoice::coat),
        always("colour", &CoatChoice::colour, a_colour),
        always("colourName", &CoatChoice::colour_name),
        must("coats", &CoatChoice::coats, from_to(0, 20)),
    };
};

template <>
struct Described<Colour> {
    static constexpr const char* name = "colour";
    static constexpr Listed fields{
        must("id", &Colour::id),
        must("making", &Colour::making),
        must("paint", &Colour::paint),
    };
};

template <>
struct Described<Finish> {
    static constexpr const char* name = "finish";
    static constexpr Listed fields{
        must("seal", &Finish::seal),
        must("lift", &Finish::lift),
        must("place", &Finish::place),
        must("safeWaits", &Finish::safe_waits),
        may("restHours", &Finish::rest_hours, from_to(0, 24 * 60)),
        may("leftOut", &Finish::left_out),
        may("stacked", &Finish::stacked),
    };
};

template <>
struct Described<Layer> {
    static constexpr const char* name = "layer";
    static constexpr Listed fields{
        must("id", &Layer::id),
        must("kind", &Layer::kind),
        may("coat", &Layer::coat),
        may("how", &Layer::how),
        may("on", &Layer::on),
        may("field", &Layer::field, from_to(1, 1000)),
        may("wipedAfter", &Layer::wiped_after, from_to(0, 24 * 60)),
        may("grit", &Layer::grit, from_to(0, 5000)),
        may("colour", &Layer::colour),
        may("done", &Layer::done),
        may("byHand", &Layer::by_hand),
    };
};

template <>
struct Described<Overruled> {
    static constexpr const char* name = "overruled";
    static constexpr Listed fields{
        must("rule", &Overruled::rule),
        must("note", &Overruled::note),
    };
};

// ---- bench record

template <>
struct Described<Piece> {
    static constexpr const char* name = "cutPiece";
    static constexpr Listed fields{
        must("letters", &Piece::letters),
        must("first", &Piece::first, from_to(0, 1'000'000)),
        must("startsWord", &Piece::starts_word),
        must("line", &Piece::line, from_to(0, 10'000)),
        must("shape", &Piece::shape),
        may("art", &Piece::art),
        may("alone", &Piece::alone),
    };
};

template <>
struct Described<Keeper> {
    static constexpr const char* name = "keeper";
    static constexpr Listed fields{
        must("letters", &Keeper::letters),
        must("shape", &Keeper::shape),
    };
};

template <>
struct Described<Motion> {
    static constexpr const char* name = "motion";
    static constexpr Listed fields{
        must("move", &Motion::by),
        may("quarters", &Motion::quarters, from_to(0, 3)),
        may("over", &Motion::over),
    };
};

template <>
struct Described<KnifeLine> {
    static constexpr const char* name = "knifeLine";
    static constexpr Listed fields{
        must("kind", &KnifeLine::kind),
        must("from", &KnifeLine::from),
        must("to", &KnifeLine::to),
    };
};

template <>
struct Described<Section> {
    static constexpr const char* name = "section";
    static constexpr Listed fields{
        must("letters", &Section::letters), must("letterCount", &Section::letter_count, from_to(0, 100'000)),
        must("film", &Section::film),       must("cut", &Section::cut),
        must("pieces", &Section::pieces),   must("keepers", &Section::keepers),
        may("ties", &Section::ties),        may("pass", &Section::pass, from_to(1, 1000)),
        may("again", &Section::again),      may("lines", &Section::lines),
    };
};

template <>
struct Described<Placement> {
    static constexpr const char* name = "placement";
    static constexpr Listed fields{
        must("section", &Placement::section),
        must("turned", &Placement::turned),
        inside(&Placement::at, must("x", &Point::x, from_to(-farthest, farthest)),
               must("y", &Point::y, from_to(-farthest, farthest))),
        may("slant", &Placement::slant, from_to(0, 90'000)),
    };
};

template <>
struct Described<Room> {
    static constexpr const char* name = "rest";
    static constexpr Listed fields{
        must("across", &Room::across),
        must("along", &Room::along),
    };
};

template <>
struct Described<CutLoad> {
    static constexpr const char* name = "cutLoad";
    static constexpr Listed fields{
        must("id", &CutLoad::id),
        must("of", &CutLoad::of),
        must("film", &CutLoad::film),
        must("mat", &CutLoad::mat),
        must("at", &CutLoad::at),
        must("keep", &CutLoad::keep),
        must("filmLength", &CutLoad::film_length),
        must("placements", &CutLoad::placements),
        must("sections", &CutLoad::sections),
        may("carriedBy", &CutLoad::carried_by),
        may("colour", &CutLoad::colour, a_colour),
        may("from", &CutLoad::from),
        may("alsoFrom", &CutLoad::also_from),
        may("rest", &CutLoad::rest),
        may("booked", &CutLoad::booked),
    };
    static void settle(const Object& o, const CutLoad& load) {
        for (const Placement& p : load.placements) {
            if (p.section >= load.sections.size()) refuse("file.out-of-range", o.path("placements"), "section");
        }
    }
};

template <>
struct Described<Mishap> {
    static constexpr const char* name = "mishap";
    static constexpr Listed fields{
        must("number", &Mishap::number, from_to(1, 1'000'000)),
        must("kind", &Mishap::kind),
        must("at", &Mishap::at),
        must("when", &Mishap::when),
        may("note", &Mishap::note),
        may("place", &Mishap::place),
        may("letter", &Mishap::letter),
    };
};

template <>
struct Described<Skipped> {
    static constexpr const char* name = "skipped";
    static constexpr Listed fields{
        must("step", &Skipped::step),
        must("reason", &Skipped::reason),
    };
};

template <>
struct Described<Photograph> {
    static constexpr const char* name = "photograph";
    static constexpr Listed fields{
        must("file", &Photograph::file),
        must("checksum", &Photograph::checksum),
        must("taken", &Photograph::taken),
        must("step", &Photograph::step),
    };
};

template <>
struct Described<Took> {
    static constexpr const char* name = "took";
    static constexpr Listed fields{
        must("step", &Took::step),
        must("minutes", &Took::minutes, from_to(1, 24 * 60)),
    };
};

template <>
struct Described<SplitTrial> {
    static constexpr const char* name = "trial";
    static constexpr Listed fields{
        must("step", &SplitTrial::step),     may("halves", &SplitTrial::halves), must("first", &SplitTrial::first),
        must("second", &SplitTrial::second), may("better", &SplitTrial::better),
    };
};

template <>
struct Described<BenchRecord> {
    static constexpr const char* name = "bench";
    static constexpr Listed fields{
        must("ticks", &BenchRecord::ticks),
        must("held", &BenchRecord::held),
        must("cut", &BenchRecord::cut),
        must("spoilt", &BenchRecord::spoilt),
        may("dry", &BenchRecord::dry),
        may("mishaps", &BenchRecord::mishaps),
        may("skipped", &BenchRecord::skipped),
        may("photographs", &BenchRecord::photographs),
        may("took", &BenchRecord::took),
        may("trials", &BenchRecord::trials),
        may("perhapsCut", &BenchRecord::perhaps_cut),
    };
};

// ---- the job

template <>
struct Described<Seen> {
    static constexpr const char* name = "seen";
    static constexpr Listed fields{
        must("distance", &Seen::distance),
        must("aboveFloor", &Seen::above_floor),
    };
};

template <>
struct Described<Face> {
    static constexpr const char* name = "face";
    static constexpr Listed fields{
        must("id", &Face::id),         must("lettering", &Face::lettering),
        may("art", &Face::art),        must("colours", &Face::colours, not_empty),
        must("finish", &Face::finish), must("layers", &Face::layers),
        may("seen", &Face::seen),      may("cutAtEdge", &Face::cut_at_edge),
    };
};

template <>
struct Described<Sign> {
    static constexpr const char* name = "sign";
    static constexpr Listed fields{
        must("id", &Sign::id),
        may("name", &Sign::name),
        must("blank", &Sign::blank),
        must("faces", &Sign::faces, not_empty),
        may("frontFirst", &Sign::front_first),
    };
};

template <>
struct Described<PostArm> {
    static constexpr const char* name = "arm";
    static constexpr Listed fields{
        must("sign", &PostArm::sign),
        must("gap", &PostArm::gap),
    };
};

template <>
struct Described<Post> {
    static constexpr const char* name = "post";
    static constexpr Listed fields{
        must("height", &Post::height),
        must("buried", &Post::buried),
        must("width", &Post::width),
        must("arms", &Post::arms),
    };
};

template <>
struct Described<Proof> {
    static constexpr const char* name = "proof";
    static constexpr Listed fields{
        must("wording", &Proof::wording),
        must("at", &Proof::at),
        may("by", &Proof::by),
    };
};

template <>
struct Described<Finished> {
    static constexpr const char* name = "finished";
    static constexpr Listed fields{
        must("outcome", &Finished::outcome),
        must("note", &Finished::note),
        must("at", &Finished::at),
    };
};

/// The format of the file itself, which no struct holds.
template <class T, int number>
struct Format {
    static void read(const Object&, T&) {}
    static void write(const T&, Json& into) { into["format"] = number; }
    static void add_keys(std::set<std::string>& keys) { keys.insert("format"); }
    static void add_schema(Schema&, Json& object) { add_property(object, "format", {{"const", number}}, true); }
};

template <>
struct Described<Job> {
    static constexpr const char* name = "job";
    static constexpr Listed fields{
        Format<Job, job_format>{},
        must("title", &Job::title),
        may("number", &Job::number),
        may("customer", &Job::customer),
        may("deadline", &Job::deadline),
        may("beginOn", &Job::begin_on),
        may("pinned", &Job::pinned),
        must("made", &Job::made, from_to(1, 1'000'000'000)),
        must("signs", &Job::signs, not_empty),
        may("overruled", &Job::overruled),
        may("post", &Job::post),
        may("proof", &Job::proof),
        always("bench", &Job::bench),
        may("finished", &Job::finished),
    };
    static void settle(const Object& o, const Job& job);
};

// ---- the shop

template <>
struct Described<PrintArea> {
    static constexpr const char* name = "printArea";
    static constexpr Listed fields{
        inside(&PrintArea::page, must("across", &Room::across), must("along", &Room::along)),
        must("margin", &PrintArea::margin),
        must("mark", &PrintArea::mark),
    };
};

template <>
struct Described<Mat> {
    static constexpr const char* name = "mat";
    static constexpr Listed fields{
        must("name", &Mat::name),
        must("width", &Mat::width),
        must("length", &Mat::length),
        inside(&Mat::usable, must("usableAcross", &Room::across), must("usableAlong", &Room::along)),
        may("roll", &Mat::roll),
        may("count", &Mat::count, from_to(1, 99)),
        may("taped", &Mat::taped),
        may("grip", &Mat::grip),
        may("tack", &Mat::tack),
        may("machine", &Mat::machine),
    };
};

template <>
struct Described<Machine> {
    static constexpr const char* name = "machine";
    static constexpr Listed fields{
        must("name", &Machine::name),
        must("beds", &Machine::beds),
        inside(&Machine::knife, must("speed", &Knife::speed_mm_s, from_to(1, 5000)),
               must("travel", &Knife::travel_mm_s, from_to(1, 5000)), must("lift", &Knife::lift_ms, from_to(0, 10'000)),
               must("knifeOffset", &Knife::offset), must("overcut", &Knife::overcut)),
        must("longestUnits", &Machine::longest_units, from_to(0, 100'000'000)),
        may("address", &Machine::address),
        may("force", &Machine::force, from_to(0, 5000)),
        may("prints", &Machine::prints),
    };
};

template <>
struct Described<FilmStock> {
    static constexpr const char* name = "film";
    static constexpr Listed fields{
        must("film", &FilmStock::film),
        must("name", &FilmStock::name),
        must("width", &FilmStock::width),
        must("left", &FilmStock::left),
        may("colour", &FilmStock::colour, a_colour),
        may("roll", &FilmStock::roll),
        may("patterned", &FilmStock::patterned),
        may("priceCents", &FilmStock::price_cents, from_to(0, 10'000'000)),
        may("soldBy", &FilmStock::sold_by),
        may("repeatAcross", &FilmStock::repeat_across),
        may("repeatAlong", &FilmStock::repeat_along),
    };
    static void settle(const Object&, FilmStock& film) {
        film.sold_by = std::max(film.sold_by, Length::sixtyfourths(1));
        film.repeat_across = std::max(film.repeat_across, Length{});
        film.repeat_along = std::max(film.repeat_along, Length{});
    }
};

template <>
struct Described<Hands> {
    static constexpr const char* name = "hands";
    static constexpr Listed fields{
        must("shift", &Hands::shift),
        must("turn", &Hands::turn_hundredths, from_to(0, 1000)),
        must("stretch", &Hands::stretch_per_mille10, from_to(0, 1000)),
        may("hingeFrom", &Hands::hinge_from),
    };
};

template <>
struct Described<StockSize> {
    static constexpr const char* name = "stockSize";
    static constexpr Listed fields{
        must("name", &StockSize::name),
        must("nominalThickness", &StockSize::nominal_thickness),
        must("nominalWidth", &StockSize::nominal_width),
        must("thickness", &StockSize::thickness),
        must("width", &StockSize::width),
    };
};

template <>
struct Described<LeftoverWood> {
    static constexpr const char* name = "leftover";
    static constexpr Listed fields{
        must("name", &LeftoverWood::name),           must("material", &LeftoverWood::material),
        must("length", &LeftoverWood::length),       must("width", &LeftoverWood::width),
        must("thickness", &LeftoverWood::thickness),
    };
};

/// Seven lists of sittings, Sunday first, each from and to in minutes of the day.
template <>
struct Value<Hours> {
    static Hours read(const Spot& spot, const Limits& = {});
    static Json write(const Hours& hours);
    static Json schema(Schema&, const Limits& = {}) {
        const Json minute{{"type", "integer"}, {"minimum", 0}, {"maximum", 24 * 60}};
        return {
            {"type", "array"},
            {"maxItems", 7},
            {"items",
             {{"type", "array"}, {"items", {{"type", "array"}, {"items", minute}, {"minItems", 2}, {"maxItems", 2}}}}}};
    }
};

template <>
struct Described<ChangedDay> {
    static constexpr const char* name = "changedDay";
    static constexpr Listed fields{
        must("day", &ChangedDay::day),
        must("from", &ChangedDay::from, from_to(0, 24 * 60)),
        must("to", &ChangedDay::to, from_to(0, 24 * 60)),
    };
};

template <>
struct Described<DayRoom> {
    static constexpr const char* name = "dayRoom";
    static constexpr Listed fields{
        must("day", &DayRoom::day),
        must("celsius", &DayRoom::celsius, from_to(-50, 60)),
        must("humidity", &DayRoom::humidity, from_to(0, 100)),
    };
};

template <>
struct Described<Pace> {
    static constexpr const char* name = "pace";
    static constexpr Listed fields{
        must("of", &Pace::of),
        must("seconds", &Pace::seconds, from_to(0, 24 * 60 * 60)),
    };
};

template <>
struct Described<OwnCondition> {
    static constexpr const char* name = "ownCondition";
    static constexpr Listed fields{
        must("fact", &OwnCondition::fact),
        must("is", &OwnCondition::is),
    };
};

template <>
struct Described<OwnRule> {
    static constexpr const char* name = "ownRule";
    static constexpr Listed fields{
        must("id", &OwnRule::id),     must("mark", &OwnRule::mark),      must("when", &OwnRule::when),
        must("says", &OwnRule::says), may("instead", &OwnRule::instead),
    };
};

template <>
struct Described<ShelfColour> {
    static constexpr const char* name = "tin";
    static constexpr Listed fields{
        must("colour", &ShelfColour::colour, a_colour),
        must("name", &ShelfColour::name),
    };
};

template <>
struct Described<Calls> {
    static constexpr const char* name = "calls";
    static constexpr Listed fields{
        must("sound", &Calls::sound),
        must("notice", &Calls::notice),
        must("flash", &Calls::flash),
        must("aloud", &Calls::aloud),
    };
};

template <>
struct Described<Shop> {
    static constexpr const char* name = "shop";
    static constexpr Listed fields{
        Format<Shop, shop_format>{},
        inside(&Shop::display, must("unit", &Display::unit), must("fraction", &Display::denominator, from_to(16, 64))),
        must("mat", &Shop::mat),
        always("machines", &Shop::machines),
        may("drawer", &Shop::drawer),
        always("hands", &Shop::hands),
        must("hours", &Shop::hours),
        may("changedDays", &Shop::changed_days),
        may("pairsOfHands", &Shop::pairs_of_hands, from_to(1, 8)),
        may("calls", &Shop::calls),
        may("mindsOthers", &Shop::minds_others),
        may("marginHours", &Shop::margin_hours, from_to(0, 24 * 60)),
        may("roomCelsius", &Shop::room_celsius, from_to(-20, 50)),
        may("roomHumidity", &Shop::room_humidity, from_to(0, 100)),
        may("weather", &Shop::weather),
        may("fan", &Shop::fan),
        may("paces", &Shop::paces),
        may("photographFolder", &Shop::photograph_folder),
        may("line", &Shop::line),
        may("stock", &Shop::stock),
        always("boardLengths", &Shop::board_lengths),
        always("kerf", &Shop::kerf),
        may("leftovers", &Shop::leftovers),
        may("favourites", &Shop::favourites),
        may("overruled", &Shop::overruled),
        may("ownRules", &Shop::own_rules),
        may("tins", &Shop::tins),
        may("partWords", &Shop::part_words),
    };
    static void settle(const Object& o, Shop& shop);
};

}  // namespace skarvel::description
