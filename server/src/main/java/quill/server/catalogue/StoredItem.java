package quill.server.catalogue;

import quill.core.catalogue.Item;

/** An item with its place in the store. @param retired whether it is no longer offered */
record StoredItem(long id, Item item, boolean retired, int version) {}
