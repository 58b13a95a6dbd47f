// files/pdf.h
//
// Pages to PDF through cairo: millimetres to points (72 to the inch), text stays text in the shipped typeface.
#pragma once

#include <string>
#include <vector>

#include "job/library.h"
#include "sheets/sheets.h"

namespace skarvel {

/// The bytes of a PDF; refused when the page typefaces are damaged.
Expected<std::string> write_pdf(const std::vector<Page>& pages, const Library& library, const std::string& title);

}  // namespace skarvel
