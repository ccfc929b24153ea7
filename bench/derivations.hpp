// Written hand calculations: how long they take, and how long they are.
#pragma once

namespace bench {

void derivations();

}  // namespace bench
