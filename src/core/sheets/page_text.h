// sheets/page_text.h
//
// How wide words are on a page, and where they may break: measured in the typeface that pages are set in (HarfBuzz),
// broken by the rules of Unicode (ICU, UAX 14).
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "job/library.h"

namespace skarvel {

class PageText {
  public:
    explicit PageText(const Library& library);
    ~PageText();
    PageText(const PageText&) = delete;
    PageText& operator=(const PageText&) = delete;

    /// In millimetres, at that size of the em.
    [[nodiscard]] double width(const std::string& words, double size_mm, bool bold = false) const;
    /// Lines no wider than that, in which a word is parted only where it alone is wider; never an empty list.
    [[nodiscard]] std::vector<std::string> lines(const std::string& words, double width_mm, double size_mm,
                                                 bool bold = false) const;

  private:
    struct Typeface;
    std::unique_ptr<Typeface> regular_, bold_;
};

}  // namespace skarvel
