// Gives up rights of the process.
#pragma once

namespace corvex::cli {

// This thread and those that it starts later can no longer write, create or remove files, nor start programs. Open
// files are not affected. Has no effect on kernels without Landlock.
void give_up_writing();

}  // namespace corvex::cli
