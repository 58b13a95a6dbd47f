#include "files/csv.h"

namespace skarvel {

std::string csv_field(const std::string& text) {
    std::string out = "\"";
    // What begins like a formula is one to a spreadsheet, quotes or not: an apostrophe makes it text.
    if (!text.empty() && std::string("=+-@\t\r\n").find(text.front()) != std::string::npos) out += '\'';
    for (const char c : text) {
        if (c == '"')
            out += "\"\"";
        else
            out += static_cast<unsigned char>(c) < 0x20 ? ' ' : c;
    }
    return out + "\"";
}

}  // namespace skarvel
