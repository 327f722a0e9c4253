// Tests are not optimised, and of a template that several objects hold the linker takes the first one's: this one is
// linked first and optimised, so that what is tested runs on strings as fast as in the program.

#include <string>

template class std::basic_string<char>;
