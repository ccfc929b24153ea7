// Rights that the program gives up.
#pragma once

namespace corvex::cli {

// From now on this thread and those that it starts can neither write, make or remove a file nor run another program,
// where the kernel has Landlock; else nothing changes. Files that are open stay as they are.
void give_up_writing();

}  // namespace corvex::cli
