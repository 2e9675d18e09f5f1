package quill.server.business;

import de.focus_shift.jollyday.core.Holiday;
import de.focus_shift.jollyday.core.HolidayManager;
import de.focus_shift.jollyday.core.HolidayType;
import de.focus_shift.jollyday.core.ManagerParameters;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;

/** Public holidays of whole countries, as the holiday library has them; regional ones are the business's to add. */
@Component
public class PublicHolidays {
    private static final Set<String> COUNTRIES = HolidayManager.getSupportedCalendarCodes().stream()
            .map(c -> c.toUpperCase(Locale.ROOT))
            .collect(Collectors.toUnmodifiableSet());
    private final Map<String, HolidayManager> managers = new ConcurrentHashMap<>();
    private final Map<String, List<PublicHoliday>> years = new ConcurrentHashMap<>();

    /** A day with its name in English. */
    public record PublicHoliday(LocalDate day, String name) {}

    /** Whether any are known of a country, by its two letters. */
    public boolean knows(String country) {
        return COUNTRIES.contains(country);
    }

    /** Those of some years; none of a country that is not known. */
    public Set<LocalDate> of(String country, int from, int to) {
        return IntStream.rangeClosed(from, to)
                .boxed()
                .flatMap(year -> of(country, year).stream())
                .map(PublicHoliday::day)
                .collect(Collectors.toSet());
    }

    /** Those of a year, in their order. */
    public List<PublicHoliday> of(String country, int year) {
        return knows(country) ? years.computeIfAbsent(country + year, k -> read(country, year)) : List.of();
    }

    private List<PublicHoliday> read(String country, int year) {
        return managers
                .computeIfAbsent(country, c -> HolidayManager.getInstance(ManagerParameters.create(c)))
                .getHolidays(java.time.Year.of(year))
                .stream()
                .filter(h -> h.getType() == HolidayType.PUBLIC_HOLIDAY)
                .sorted(Comparator.comparing(Holiday::getDate))
                .map(h -> new PublicHoliday(h.getDate(), h.getDescription(Locale.ENGLISH)))
                .toList();
    }
}
