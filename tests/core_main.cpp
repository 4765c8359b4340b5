#include "test_list.hpp"

#include <QCoreApplication>

int main(int argc, char** argv)
{
    const QCoreApplication application(argc, argv);
    return deepstop::tests::runTests(argc, argv);
}
