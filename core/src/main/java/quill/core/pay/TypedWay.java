package quill.core.pay;

import quill.core.money.DecimalMark;

/**
 * The rules of one way, as typed.
 *
 * @param currencies codes with blanks or commas between; empty for all
 * @param countries of clients, by their two letters; empty for all
 * @param smallest amount of the own currency from which it is offered; empty for none
 * @param ceiling amount up to which it is offered; empty for none
 * @param feePercent what it costs the business, in percent
 * @param feeFixed the same, a sum for each payment
 * @param days working days until the money arrives
 * @param processor the id of the one that takes it, where one does; empty for whichever there is
 */
public record TypedWay(
        String way,
        boolean on,
        String currencies,
        String countries,
        String smallest,
        String ceiling,
        String feePercent,
        String feeFixed,
        String days,
        String processor) {
    /** Rules that were kept before it could be said name no processor. */
    public TypedWay {
        processor = processor == null ? "" : processor;
    }

    /** The same with its numbers as programs write them. */
    public TypedWay plain(DecimalMark mark) {
        return new TypedWay(
                way,
                on,
                currencies,
                countries,
                mark.plain(smallest),
                mark.plain(ceiling),
                mark.plain(feePercent),
                mark.plain(feeFixed),
                days,
                processor);
    }

    /** The same with a limit. */
    public TypedWay upTo(String most) {
        return new TypedWay(way, on, currencies, countries, smallest, most, feePercent, feeFixed, days, processor);
    }

    /** The same from an amount on. */
    public TypedWay from(String least) {
        return new TypedWay(way, on, currencies, countries, least, ceiling, feePercent, feeFixed, days, processor);
    }

    /** The same, through a processor. @param id as it is set up */
    public TypedWay through(String id) {
        return new TypedWay(way, on, currencies, countries, smallest, ceiling, feePercent, feeFixed, days, id);
    }

    /** The same, offered or not. */
    public TypedWay switched(boolean other) {
        return new TypedWay(
                way, other, currencies, countries, smallest, ceiling, feePercent, feeFixed, days, processor);
    }
}
