// Prints docs/pile.schema.json.
#include <iostream>

#include "pile/schema.h"

int main() {
    std::cout << bp::pile_schema();
    return 0;
}
