#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

#ifdef SKARVEL_WITH_QT
#include <QApplication>
#endif

int main(int argc, char** argv) { return Catch::Session().run(argc, argv); }
