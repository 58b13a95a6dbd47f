#include "theme/words.h"

#include "theme/theme.h"

namespace skarvel {
namespace {

struct Speech {
    Catalogue catalogue;
    Display display;
};
Speech& speech() {
    static Speech one;
    return one;
}

}  // namespace

void speak_from(const Catalogue& catalogue, const Display& display) { speech() = {catalogue, display}; }

QString in_words(const char* key, std::initializer_list<Told> arguments) {
    Reason reason{key, {}};
    for (const Told& a : arguments) reason.arguments.emplace_back(a.name, a.value);
    return shown(speech().catalogue.say(reason, speech().display));
}

}  // namespace skarvel
