package quill.core.letter;

import java.util.List;
import java.util.stream.Collectors;

/**
 * A letter with its fields filled in.
 *
 * @param subject one line, never empty
 */
public record Filled(String subject, List<Block> blocks) {
    /** Copies the blocks. */
    public Filled {
        blocks = List.copyOf(blocks);
    }

    /**
     * A paragraph, or a place where something is drawn.
     *
     * @param runs of a paragraph; none of what is drawn
     * @param drawn what is drawn here; null of a paragraph
     */
    public record Block(List<Run> runs, LetterField drawn) {
        /** Copies the runs. */
        public Block {
            runs = List.copyOf(runs);
        }

        /** A paragraph's text. */
        public String text() {
            return runs.stream().map(Run::text).collect(Collectors.joining());
        }

        /** Whether something of this kind is drawn here. */
        public boolean is(String field) {
            return drawn != null && drawn.name().equals(field);
        }
    }

    /** Some text. @param link whether it is the address of a page, and leads there */
    public record Run(String text, boolean link) {}

    /** What it says, without what is drawn in it: paragraphs with empty lines between. */
    public String text() {
        return blocks.stream().filter(b -> b.drawn() == null).map(Block::text).collect(Collectors.joining("\n\n"));
    }

    /** Whether a block is drawn anywhere. */
    public boolean has(LetterField block) {
        return blocks.stream().anyMatch(b -> b.drawn() == block);
    }
}
