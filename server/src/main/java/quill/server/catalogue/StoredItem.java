package quill.server.catalogue;

import quill.core.catalogue.Item;

/** An item with its place in the store. @param picture its hash; empty for none @param retired whether it is no longer offered */
record StoredItem(long id, Item item, String picture, boolean retired, int version) {}
