// files/csv.h
//
// Fields of comma-separated files (RFC 4180): quoted, on one line, and never taken for a formula by a spreadsheet.
#pragma once

#include <string>

namespace skarvel {

std::string csv_field(const std::string& text);

}  // namespace skarvel
