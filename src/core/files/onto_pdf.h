// files/onto_pdf.h
//
// What every writer of PDFs asks of cairo. For this folder alone.
#pragma once

#include <cairo-pdf.h>

#include <string>

namespace skarvel::onto_pdf {

constexpr double points_per_mm = 72 / 25.4;

/// For cairo: appends to the std::string that `closure` points at.
inline cairo_status_t collect(void* closure, const unsigned char* data, unsigned length) {
    static_cast<std::string*>(closure)->append(reinterpret_cast<const char*>(data), length);
    return CAIRO_STATUS_SUCCESS;
}

}  // namespace skarvel::onto_pdf
