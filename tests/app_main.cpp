#include "catalogue.hpp"
#include "window/application.hpp"
#include "test_list.hpp"

int main(int argc, char** argv)
{
    const deepstop::app::Application application(argc, argv);
    deepstop::app::speakTheReadersLanguage();
    return deepstop::tests::runTests(argc, argv);
}
