// Links what the program links, and does nothing: the cost of starting.
int main() {}
