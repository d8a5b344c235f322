// Running the command line as a person does.
#pragma once

#include <sys/wait.h>

#include <cstdio>
#include <cstdlib>
#include <string>

#include "support/fixtures.h"

namespace bp::test {

struct Ran {
    int code = -1;
    std::string out;
    std::string error;
};

// `before` is what the shell does first, e.g. setting a limit; `language` that of the environment.
inline Ran run_program(const std::string& arguments, const std::string& before = "",
                       const std::string& language = "C.UTF-8") {
    const Folder folder;
    const std::string out = (folder / "out").string();
    const std::string error = (folder / "error").string();
    const int status = std::system(
        (before + "env LANGUAGE= LC_ALL=" + language + " " + CLI_PROGRAM + " " + arguments + " >" + out + " 2>" + error)
            .c_str());
    return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, bytes_of(out), bytes_of(error)};
}

}  // namespace bp::test
