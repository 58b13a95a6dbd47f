// theme/words.h
//
// How the window speaks: every sentence is a key of the catalogue (assets/text/) with its arguments, so that none
// stands in the code, and another language is another catalogue.
#pragma once

#include <QString>
#include <initializer_list>

#include "text/named.h"

namespace skarvel {

/// An argument of a sentence, by its name there.
struct Told : Named {
    template <class T>
    Told(const char* argument, const T& is) : Named(argument, is) {}
    Told(const char* argument, const QString& text) : Named(argument, text.toStdString()) {}
};

/// From here on the window speaks from this catalogue, with lengths as the shop shows them.
void speak_from(const Catalogue& catalogue, const Display& display);

QString in_words(const char* key, std::initializer_list<Told> arguments = {});

}  // namespace skarvel
