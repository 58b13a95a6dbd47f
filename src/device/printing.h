// device/printing.h
//
// Printing: a page to a printer behind a socket, whole, with what it says to it.
#pragma once

#include <stop_token>
#include <string>

#include "device/line.h"
#include "text/reason.h"

namespace skarvel {

/// Refused: nobody answers, the page is longer or wider than the printer can print, or `stop` was requested before it
/// answered.
Expected<std::string> print(const std::string& pdf, const Address& to, const std::stop_token& stop);

}  // namespace skarvel
