#include "window/installed.h"

#include <fontconfig/fontconfig.h>

#include <algorithm>
#include <memory>

namespace skarvel {

void look_for_typefaces() { FcInit(); }

std::vector<InstalledTypeface> installed_typefaces() {
    std::vector<InstalledTypeface> all;
    const std::unique_ptr<FcConfig, decltype(&FcConfigDestroy)> config(FcInitLoadConfigAndFonts(), FcConfigDestroy);
    if (!config) return all;
    const std::unique_ptr<FcPattern, decltype(&FcPatternDestroy)> any(
        FcPatternBuild(nullptr, FC_OUTLINE, FcTypeBool, FcTrue, nullptr), FcPatternDestroy);
    const std::unique_ptr<FcObjectSet, decltype(&FcObjectSetDestroy)> wanted(
        FcObjectSetBuild(FC_FAMILY, FC_STYLE, FC_FILE, FC_INDEX, nullptr), FcObjectSetDestroy);
    const std::unique_ptr<FcFontSet, decltype(&FcFontSetDestroy)> found(
        FcFontList(config.get(), any.get(), wanted.get()), FcFontSetDestroy);
    if (!found) return all;
    for (int i = 0; i < found->nfont; ++i) {
        FcChar8* family = nullptr;
        FcChar8* style = nullptr;
        FcChar8* file = nullptr;
        int index = 0;
        if (FcPatternGetString(found->fonts[i], FC_FAMILY, 0, &family) != FcResultMatch) continue;
        if (FcPatternGetString(found->fonts[i], FC_FILE, 0, &file) != FcResultMatch) continue;
        FcPatternGetString(found->fonts[i], FC_STYLE, 0, &style);
        FcPatternGetInteger(found->fonts[i], FC_INDEX, 0, &index);
        if (index != 0) continue;  // one typeface a file
        all.push_back({{reinterpret_cast<const char*>(family),
                        style == nullptr ? "Regular" : reinterpret_cast<const char*>(style),
                        {}},
                       reinterpret_cast<const char*>(file)});
    }
    std::sort(all.begin(), all.end(), [](const InstalledTypeface& a, const InstalledTypeface& b) {
        return std::tie(a.name.family, a.name.style) < std::tie(b.name.family, b.name.style);
    });
    all.erase(std::unique(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.name == b.name; }),
              all.end());
    return all;
}

}  // namespace skarvel
