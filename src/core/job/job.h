// job/job.h
//
// Job: what the maker decided, and the bench record. Everything else follows from it (job/plan.h). Plain values: a copy
// is an undo step, and == tells whether anything changed.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "artwork/art.h"
#include "bench/steps.h"
#include "blank/blank.h"
#include "blank/post.h"
#include "job/library.h"
#include "lettering/legibility.h"
#include "loads/machines.h"
#include "making/making.h"
#include "method/build_up.h"

namespace skarvel {

/// One colour of a face: how it gets on the blank, and what it is.
struct Colour {
    ColourId id = first_colour;
    Making making;
    CoatChoice paint;  ///< for a decal only colour and name count
    friend bool operator==(const Colour&, const Colour&) = default;
};

struct Face {
    FaceId id = first_face;
    Lettering lettering;
    std::vector<Art> art;         ///< back to front, behind the lettering
    std::vector<Colour> colours;  ///< in the order in which they are laid
    Seen seen;                    ///< where it is read from
    bool cut_at_edge = false;     ///< ink that reaches over the blank's edge is cut off there
    Finish finish;
    std::vector<Layer> layers;  ///< the build-up, from the bare surface up
    friend bool operator==(const Face&, const Face&) = default;
};

struct Sign {
    SignId id = first_sign;
    std::string name;  ///< the maker's own; otherwise its words name it
    Blank blank;
    std::vector<Face> faces;
    bool front_first =
        false;  ///< of two faces the front is worked first; else the back, so that the front is never lain on
    friend bool operator==(const Sign&, const Sign&) = default;
};

/// The wording that the maker has read and signed; it lapses when the words change.
struct Proof {
    std::string wording;
    Moment at{};
    std::string by{};  ///< who said yes to it, where that is not the maker
    friend bool operator==(const Proof&, const Proof&) = default;
};

enum class Outcome { Good, Fair, Poor };
constexpr auto words_of(Outcome) { return std::array{"good", "fair", "poor"}; }

struct Finished {
    Outcome outcome = Outcome::Good;
    std::string note;
    Moment at{};
    friend bool operator==(const Finished&, const Finished&) = default;
};

/// Where a face, or a colour of it, is in a job. Places are for showing and choosing; what refers to a thing over time
/// names it by its id.
struct FaceAt {
    std::size_t sign = 0, face = 0;
    friend bool operator==(const FaceAt&, const FaceAt&) = default;
};
struct ColourAt {
    FaceAt face;
    std::size_t colour = 0;
    friend bool operator==(const ColourAt&, const ColourAt&) = default;
};

struct Job {
    std::string title = "Untitled job";
    std::string number, customer;
    std::optional<Moment> deadline;
    std::optional<Moment> begin_on{};   ///< no work on it before that
    std::map<StepId, Moment> pinned{};  ///< work that its maker wants to begin then
    int made = 1;                       ///< how many ids were made for it: the next one gets the next number
    std::vector<Sign> signs;
    std::vector<Overruled> overruled;  ///< rules that do not hold for it
    std::optional<Proof> proof;
    std::optional<Post> post;  ///< several signs one above the other
    BenchRecord bench;
    std::optional<Finished> finished;
    friend bool operator==(const Job&, const Job&) = default;
};

/// Wood left over from other jobs.
struct LeftoverWood {
    std::string name;  ///< what it is and where it stands
    std::string material = "pine";
    Measure length{}, width{}, thickness{};
    friend bool operator==(const LeftoverWood&, const LeftoverWood&) = default;
};

/// How exactly sections are laid by hand, as spreads (one standard deviation): what the proof by hand reckons with.
struct Hands {
    Length shift = 0.03125_in;     ///< off its place
    int turn_hundredths = 15;      ///< of a degree
    int stretch_per_mille10 = 10;  ///< ten-thousandths of its length that film stretches
    Length hinge_from{};           ///< longest side of a film that is hinged; zero: as the trade data say
    friend bool operator==(const Hands&, const Hands&) = default;
};

/// How the maker is called to the bench.
struct Calls {
    bool sound = true, notice = true, flash = true;
    bool aloud = false;  ///< steps are read out
    friend bool operator==(const Calls&, const Calls&) = default;
};

/// How cold and damp a day is where things dry, where that is not as the room usually is.
struct DayRoom {
    Moment day{};  ///< its midnight
    int celsius = 20, humidity = 50;
    friend bool operator==(const DayRoom&, const DayRoom&) = default;
};

/// What the shop has and how it works: read by every plan, changed on the Shop page.
struct Shop {
    Display display;
    Mat mat;                        ///< that loads are cut on where a colour names no other bed
    std::vector<Machine> machines;  ///< with all their beds
    std::vector<FilmStock> drawer;  ///< rolls, sheets and leftovers of film
    Hands hands;
    Hours hours;
    std::vector<ChangedDay> changed_days{};  ///< that differ from their weekday
    int pairs_of_hands = 1;                  ///< that work side by side
    Calls calls{};
    bool minds_others = true;                                 ///< hours of jobs that are wanted sooner are kept free
    int margin_hours = 0;                                     ///< that the latest start leaves before a deadline
    int room_celsius = 20, room_humidity = 50;                ///< where things dry; humidity in percent
    std::vector<DayRoom> weather{};                           ///< of single days
    bool fan = false;                                         ///< that moves the air where things dry
    std::vector<Pace> paces{};                                ///< of its own, where the table's are not
    std::string photograph_folder{};                          ///< where a telephone puts its pictures
    std::vector<std::string> line{};                          ///< files of jobs that come before others, in that order
    std::vector<StockSize> stock;                             ///< the shop's own sizes, beside the standard ones
    std::vector<Length> board_lengths{72_in, 96_in, 120_in};  ///< that boards are sold in
    Length kerf = 0.125_in;                                   ///< of the saw
    std::vector<LeftoverWood> leftovers;
    std::vector<std::string> favourites;  ///< typefaces, as "family style"
    std::vector<Overruled> overruled;     ///< rules that do not hold here
    std::vector<OwnRule> own_rules{};     ///< beside those of the trade
    std::vector<ShelfColour> tins{};      ///< colours that its maker has, by their own names
    bool part_words = false;              ///< its habit: words are parted where that saves a load or film
    friend bool operator==(const Shop&, const Shop&) = default;
};

/// With what the trade data begin one: a board with nothing on it yet, and the usual coats.
Job new_job(const Library& library);
/// A mat of 12 x 24 in, evenings and Saturday morning.
Shop usual_shop();

/// The machine that takes a bed; a plain one where none of that name is in the shop.
Machine machine_of(const Shop& shop, const Mat& bed);
/// The bed that a making names, or the usual one, as wide as the film in the drawer for it is at most. What is
/// `printed` first goes on the first page that a machine can find its marks on.
Mat bed_for(const Shop& shop, const Making& making, bool printed = false, const std::string& colour = {});
/// How Making names a bed: "12-inch cutter / roll".
std::string bed_name(const Mat& bed);

/// Ids that the job never had before.
SignId new_sign_id(Job& job);
FaceId new_face_id(Job& job, const SignId& of);
ColourId new_colour_id(Job& job, const FaceId& of);
ThingId new_thing_id(Job& job);
LayerId new_layer_id(Job& job);
/// The sign, its faces and their colours all get ids of their own; what is in a colour stays in it.
void make_new(Job& job, Sign& sign);
void make_new(Job& job, Face& face, FaceId id);
/// What a build-up of the face is suggested for.
Suggesting suggesting(const Blank& blank, const Face& face, const Trade& trade);
/// Everything on the face takes another colour.
void recolour(Face& face, const std::function<ColourId(const ColourId&)>& to);

/// Nothing for what is not there, or no longer.
std::optional<FaceAt> place_of(const Job& job, const FaceId& id);
std::optional<ColourAt> place_of(const Job& job, const ColourId& id);
/// The first one where the face has no such colour.
std::size_t place_of(const Face& face, const ColourId& id);
const Colour* find_colour(const Face& face, const ColourId& id);
const Face& face_at(const Job& job, const FaceAt& at);
const Colour& colour_at(const Job& job, const ColourAt& at);
std::vector<ColourId> colours_of(const Face& face);

/// What a job has more of than it may (values/limits.h); nothing where it keeps to them.
std::optional<Reason> beyond_limits(const Job& job);

/// What a sign is called: its name, else its first words, else its number.
std::string label_of(const Sign& sign);
/// The blank as the back face sees it: left and right change sides. `across`: the width of its face.
Blank seen_from_behind(const Blank& blank, Length across);

/// Places of the leftover pieces that the blank can be cut from, the smallest first: as long and as wide, of the same
/// material, and as thick within 1/16 in.
std::vector<std::size_t> leftovers_that_do(const Blank& blank, const BlankPlan& plan,
                                           const std::vector<LeftoverWood>& leftovers);

/// All the words of a job, one line each: what a proof shows.
std::string wording(const Job& job);

/// "60" in an inch field; for constants that are known to be measures.
Measure measure(const char* typed);

}  // namespace skarvel
