// job/layer_commands.h
//
// What the maker does to the build-up of a face: layers put in, taken out, moved and suggested, and what a rule found
// mended. Each changes the face that it is given; what is not there changes nothing. A list that does not name all
// colours yet names them afterwards (in_order).
#pragma once

#include "job/job.h"

namespace skarvel {

/// A layer that is not in the list yet. Coats get their usual colour; `coat`: out of which tin.
Layer new_layer(Job& job, LayerKind kind, const std::string& coat, const Trade& trade);

/// Before the layer at that place in the order of laying; beyond the last one: on top.
void put_in(Face& face, Layer layer, std::size_t before, const Trade& trade);
/// Lettering stays: a colour is taken out at Lettering. What was suggested is not suggested again.
void take_out(Face& face, const LayerId& layer, const Trade& trade);
/// Changed by hand from now on.
void change_layer(Face& face, const LayerId& layer, const std::function<void(Layer&)>& how, const Trade& trade);
/// Past its neighbour: `up` towards the last one laid. Lettering past lettering changes the order of the colours.
void move_layer(Face& face, const LayerId& layer, bool up, const Trade& trade);
/// The clear coats above all, or all of them below the lettering: where makers differ.
void lay_clear(Face& face, bool over, const Trade& trade);
bool clear_lies_over(const Face& face, const Trade& trade);
/// Anew from blank, place and way, around what was set by hand.
void suggest_layers(Face& face, const Blank& blank, const Trade& trade);

/// What was found is mended in that way. `colour`: which of the face's it was found at.
void mend(Face& face, std::size_t colour, const BuildUp& build_up, const Finding& finding, Fix fix, const Trade& trade);

/// The rule no longer holds, with that note; or holds again.
void overrule(std::vector<Overruled>& all, const std::string& rule, const std::string& note);
void hold_again(std::vector<Overruled>& all, const std::string& rule);

/// The place of a layer in the list; its size where it is not there.
std::size_t place_of(const std::vector<Layer>& layers, const LayerId& id);

}  // namespace skarvel
