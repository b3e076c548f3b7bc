namespace chispa::desk { int placeholder(); int placeholder() { return 0; } }
