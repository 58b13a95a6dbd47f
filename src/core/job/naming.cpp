#include "job/naming.h"

namespace skarvel {

std::string name_of_colour(const Job& job, const ColourId& id) {
    const auto at = place_of(job, id);
    if (!at) return {};
    std::string name = job.signs.size() > 1 ? label_of(job.signs[at->face.sign]) : std::string();
    if (face_at(job, at->face).colours.size() == 1) return name;
    const CoatChoice& paint = colour_at(job, *at).paint;
    name += name.empty() ? "" : ", ";
    return name + (paint.colour_name.empty() ? paint.colour : paint.colour_name);
}

}  // namespace skarvel
