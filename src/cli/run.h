// The whole command line behind main().
#pragma once

namespace anvil::cli {

/// Parses the arguments, runs the command they name and prints what it gives back. Exit status: 0 done, 2
/// wrong use, 3 bad input; a reason is one line on the error output.
int run(int argc, char** argv);

} // namespace anvil::cli
