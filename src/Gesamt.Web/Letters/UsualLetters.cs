using Gesamt.Core.Letters;

namespace Gesamt.Web.Letters;

/// <summary>A letter by the key under which a kind may have its own.</summary>
public sealed record UsualLetter(string Key, string Subject, string Body);

/// <summary>What a letter says that carries a paper, where the kind has no letter of its own for it.</summary>
public static class UsualLetters
{
    public static readonly UsualLetter RateSheet = new(
        "rate-sheet",
        "What things cost",
        """
        Hello [first name, or: there],

        here is what things cost. Please tick what interests you, it takes a minute:
        [page link]

        A proposal follows once I know more.

        [owner]
        """
    );

    public static readonly UsualLetter Amendment = new(
        "amendment",
        "A change to what we agreed, [project]",
        """
        Hello [first name, or: there],

        here is the amendment to “[project]”: what changes, the price from now on, and how what is left is paid. Please read it and sign it here:
        [page link]

        [owner]
        """
    );

    public static readonly UsualLetter Progress = new(
        Blanks.ProgressLetter,
        "[project]: how it goes",
        """
        Hello [first name, or: there],

        here is how “[project]” goes.

        [progress]

        [owner]
        """
    );

    public static readonly UsualLetter Testimonial = new(
        "testimonial",
        "May I quote you? [project]",
        """
        Hello [first name, or: there],

        what you said about “[project]” pleased me. I would like to quote you, only in words that are right to you, and to show the work. Please read them here, change what you like, and say yes or no:
        [page link]

        A no is a fine answer too.

        [owner]
        """
    );

    public static readonly UsualLetter[] All = [RateSheet, Amendment, Progress, Testimonial];
}
