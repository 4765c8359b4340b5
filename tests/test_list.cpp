#include "test_list.hpp"

#include <QTest>

#include <cstdio>
#include <cstring>

namespace deepstop::tests {

std::vector<TestClass>& testClasses()
{
    static std::vector<TestClass> all;
    return all;
}

int runTests(int argc, char** argv)
{
    const bool one = argc > 1 && argv[1][0] != '-';
    int failed = 0;
    int ran = 0;
    for (const TestClass& each : testClasses()) {
        if (one && std::strcmp(each.name, argv[1]) != 0)
            continue;
        ++ran;
        std::vector<char*> rest { argv[0] };
        rest.insert(rest.end(), argv + (one ? 2 : 1), argv + argc);
        const auto object = each.make();
        failed += QTest::qExec(object.get(), static_cast<int>(rest.size()), rest.data());
    }
    if (ran == 0) {
        std::fprintf(stderr, "%s: there is no such class of tests.\n", argv[1]);
        return 1;
    }
    return failed;
}

} // namespace deepstop::tests
