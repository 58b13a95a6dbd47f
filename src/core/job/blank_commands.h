// job/blank_commands.h
//
// What the maker does to a blank that is more than one value put in another's place (values/lens.h does that). Each
// changes the blank that it is given; places that are not there change nothing.
#pragma once

#include "blank/blank.h"

namespace skarvel {

/// Stands or lies from now on; clear zones at its ends go with it.
void turn(Blank& blank, Stands stands);

/// What is read through from behind must be clear: of another material it is lettered in front.
void make_of(Blank& blank, const std::string& material);

/// Sold under that name, by whose real width it goes; with an empty name it keeps the width that it has.
void sell_as(Blank& blank, const std::string& stock, Length width, const Display& display);

/// Of that outline from now on, as wide as it was known to be, or else as `width` (12 in where that is nothing).
void take_outline(Blank& blank, Region outline, Length width, const std::string& source);

// ---- clear zones

/// Where a zone lies: a band at an edge, or a shape anywhere.
enum class ZonePlace { Top, Bottom, Left, Right, Rectangle, Circle };
ZonePlace place_of(const ClearZone& zone);
/// A band of 2 in at the end that is first in reading.
void add_zone(Blank& blank, const std::string& name);
void remove_zone(Blank& blank, std::size_t zone);
/// A shape begins in the middle of the face, 2 in wide and high; it is no wound rope.
void place_zone(Blank& blank, std::size_t zone, ZonePlace place, const Box& face);
/// Wound rope at an edge takes turns times its girth; anything else a depth.
void keep_clear_for(Blank& blank, std::size_t zone, ZoneReason reason);
void wind(Blank& blank, std::size_t zone, int turns);

// ---- painted fields and guides

enum class FieldRuns { Across, Up, AllRound };
FieldRuns runs_of(const PaintedField& field);
/// A band across the middle, a quarter of the face.
void add_field(Blank& blank, const Box& face, const std::string& colour_name);
void run_field(Blank& blank, std::size_t field, FieldRuns runs);
void remove_field(Blank& blank, std::size_t field);
void add_guide(Blank& blank, const std::string& name);
void remove_guide(Blank& blank, std::size_t guide);

/// Glued on a larger board, an inch more on every side; or on none.
void put_on_backing(Blank& blank, bool backed, Length length, Length width);

}  // namespace skarvel
