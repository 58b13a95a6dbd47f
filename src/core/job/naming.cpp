#include "job/naming.h"

namespace skarvel {

std::string name_of_face(const Job& job, const std::string& id) {
    for (const Sign& sign : job.signs) {
        for (std::size_t f = 0; f < sign.faces.size(); ++f) {
            for (std::size_t c = 0; c < sign.faces[f].colours.size(); ++c) {
                if (face_id(sign, f, c) != id) continue;
                std::string name = job.signs.size() > 1 ? label_of(sign) : std::string();
                if (sign.faces[f].colours.size() == 1) return name;
                const CoatChoice& paint = sign.faces[f].colours[c].paint;
                name += name.empty() ? "" : ", ";
                return name + (paint.colour_name.empty() ? paint.colour : paint.colour_name);
            }
        }
    }
    return {};
}

}  // namespace skarvel
