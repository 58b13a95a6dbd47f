// bench/merging.h
//
// Two at one job: what was done at the bench by two programs since both read the same file, in one record. Whoever
// ticked, held, cut or left something out is believed; what one took back is taken back, unless the other did it anew.
#pragma once

#include "bench/steps.h"

namespace skarvel {

/// `base`: the record that both began with.
BenchRecord merged(const BenchRecord& base, const BenchRecord& mine, const BenchRecord& theirs);

}  // namespace skarvel
