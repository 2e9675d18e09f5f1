package quill.server.audit;

import quill.server.common.StoredWord;
import quill.server.common.Texts;

/** Whoever does something. */
public sealed interface Actor {
    /** As many characters as a name has room for where it is kept. */
    int MOST = 120;

    /** The product itself. */
    Actor PRODUCT = new Product();

    /** Somebody signed in. */
    record Person(String name) implements Actor {
        /** No longer than is kept. */
        public Person {
            name = Texts.fit(name, MOST);
        }

        @Override
        public String words() {
            return name;
        }
    }

    /** A client on its page. */
    record OnItsPage(String name) implements Actor {
        private static final String SAID = ", client";

        /** No longer than is kept. */
        public OnItsPage {
            name = Texts.fit(name, MOST - SAID.length());
        }

        @Override
        public String words() {
            return name + SAID;
        }
    }

    /** The product, by itself. */
    record Product() implements Actor {
        @Override
        public String words() {
            return "by itself";
        }
    }

    /** As it is said. */
    String words();

    /** Whether nobody did it. */
    default boolean isProduct() {
        return this instanceof Product;
    }

    /** Which of them it is, as it is kept beside the name. */
    default Kind kind() {
        return this instanceof Person ? Kind.PERSON : this instanceof OnItsPage ? Kind.CLIENT : Kind.PRODUCT;
    }

    /** Its name; the product has none. */
    default String name() {
        return "";
    }

    /** From what was kept. */
    static Actor of(String kind, String name) {
        return switch (StoredWord.of(Kind.class, kind)) {
            case PERSON -> new Person(name);
            case CLIENT -> new OnItsPage(name);
            case PRODUCT -> PRODUCT;
        };
    }

    /** Which of them there are. */
    enum Kind implements StoredWord {
        PERSON,
        CLIENT,
        PRODUCT
    }
}
