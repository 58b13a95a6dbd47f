// method/layers.h
//
// Layers: the build-up of a face as its maker means it, a list from the bare surface up. What is laid through or as
// film is in it too, colour by colour, so that anything may come below, between and after. The list is kept as it was
// written; `in_order` is what hands do: every colour once, and on the back of a clear blank what lies behind the
// lettering after it. What a layer is made of says what it is: stain, primer, ground, glaze and clear are all coats.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "blank/blank.h"
#include "method/trade.h"
#include "values/id.h"

namespace skarvel {

enum class LayerKind { Wipe, Sand, Coat, DryBrush, Lettering, Distress, Chalk, Hardware, Decorate, Trial };
constexpr auto words_of(LayerKind) {
    return std::array{"wipe",     "sand",  "coat",     "dry-brush", "lettering",
                      "distress", "chalk", "hardware", "decorate",  "trial"};
}

/// How a coat is put on.
enum class PutOn { Brush, Roller, Sponge, Spray, Cloth };
constexpr auto words_of(PutOn) { return std::array{"brush", "roller", "sponge", "spray", "cloth"}; }

/// Where a coat goes. `Field`: on one painted field; `Openings`: through the mask of the lettering that it follows.
enum class On { Face, Edges, Back, Field, Openings };
constexpr auto words_of(On) { return std::array{"face", "edges", "back", "field", "openings"}; }

struct Layer {
    LayerId id;
    LayerKind kind = LayerKind::Coat;
    CoatChoice coat{};  ///< of a coat and of dry-brushing: what, in which colour, how often
    PutOn how = PutOn::Brush;
    On on = On::Face;
    int field = 1;                 ///< of a coat on one painted field: which, counted from 1
    int wiped_after = 0;           ///< minutes after which a coat is wiped back; 0: it is left
    int grit = 0;                  ///< of the paper that sands or rubs through; 0: the usual one
    ColourId colour{};             ///< of lettering: which
    std::optional<Moment> done{};  ///< it is there already, since then
    bool by_hand = false;          ///< the maker set it: suggesting again leaves it alone
    friend bool operator==(const Layer&, const Layer&) = default;
};

/// The places that a new build-up has: their work is called after them (values/work.h), whatever is added later.
inline const LayerId wiping{"wipe"};
inline const LayerId sanding{"sand"};
inline const LayerId priming{"primer"};
inline const LayerId ground_coat{"ground"};
inline const LayerId chalking{"chalk"};
inline const LayerId clear_coat{"clear"};

/// Where a sign is to be: what it has to stand.
enum class Place { Indoors, Porch, Weather, Kitchen, Floor, Child, Wet };
constexpr auto words_of(Place) { return std::array{"indoors", "porch", "weather", "kitchen", "floor", "child", "wet"}; }
bool is_outdoors(Place place);

/// The coats that go through the mask of a lettering: those that follow it, up to the next thing that is done.
std::vector<Layer> through_mask(const std::vector<Layer>& in_order, const ColourId& colour);

/// A coat or dry-brushing: something out of a tin.
bool is_coat(const Layer& layer);
/// What it is made of, of a coat; kind "none" for the rest.
Coat coat_of(const Trade& trade, const Layer& layer);
bool is_clear(const Trade& trade, const Layer& layer);

/// The layers as they are laid, each of `colours` in it once: those that the list names stand where it has lettering,
/// in the order of `colours`, which is that of laying; the others come right after; what it names besides is left out.
/// Lettered from behind, the coats of the face below the lettering follow it, the one next to it first.
std::vector<Layer> in_order(const std::vector<Layer>& layers, const std::vector<ColourId>& colours, bool from_behind,
                            const Trade& trade);

/// How many coats of one colour hide another (common practice: white over dark wants two and more, black over anything
/// one): "#rrggbb" each.
int coats_to_hide(const std::string& below, const std::string& above);

/// What a build-up is suggested for.
struct Suggesting {
    std::string material, bare;  ///< what the blank is made of, and "#rrggbb", as it looks
    Already already = Already::Bare;
    Place place = Place::Porch;
    bool from_behind = false;
    bool decals_alone = false;  ///< nothing of the face is painted through a mask
    std::vector<ColourId> colours;
    friend bool operator==(const Suggesting&, const Suggesting&) = default;
};

/// A whole sound build-up, from the usual coats: prepared as the material wants to be, primed where it has to be,
/// ground, lettering, and as many clear coats as the place asks for.
std::vector<Layer> suggested_layers(const Suggesting& in, const Trade& trade);

/// Suggested anew around what the maker has set by hand, which stays where it stands between its neighbours, and
/// without what the maker has taken out (`left_out`).
std::vector<Layer> suggested_again(const std::vector<Layer>& now, const std::vector<LayerId>& left_out,
                                   const Suggesting& in, const Trade& trade);

}  // namespace skarvel
