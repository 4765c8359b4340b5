#pragma once
/// Every class of tests enters itself here; a program runs those that were linked into it.

#include <QObject>

#include <memory>
#include <vector>

namespace deepstop::tests {

struct TestClass {
    const char* name;
    std::unique_ptr<QObject> (*make)();
};

std::vector<TestClass>& testClasses();

/// Runs the class named by the first argument, the rest going to Qt Test; without one, all of them.
int runTests(int argc, char** argv);

} // namespace deepstop::tests

#define DEEPSTOP_TEST(Class)                                                                                                               \
    static const bool entered##Class =                                                                                                     \
        (deepstop::tests::testClasses().push_back({ #Class, []() -> std::unique_ptr<QObject> { return std::make_unique<Class>(); } }),     \
            true);
