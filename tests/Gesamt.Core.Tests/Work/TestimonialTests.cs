using Gesamt.Core.Routines;
using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

/// <summary>What a client lets the studio say and show.</summary>
public sealed class TestimonialTests
{
    private static readonly VersionId Words = new(5),
        Others = new(6),
        Sentence = new(7);

    private static Testimonial Of(params Happening[] what) =>
        TestimonialRule.Of(Case([.. what.Select((one, day) => (Day(day), one))]).History);

    private static string Day(int day) => Date("2027-01-04").PlusDays(day).ToString("uuuu-MM-dd", null) + " 09:00";

    [Fact]
    public void Nothing_is_quoted_or_shown_before_it_is_allowed()
    {
        var asked = Of(new Happening.TestimonialPut(Words));
        Assert.True(asked.IsOpen);
        Assert.Equal((LeaveState.Asked, LeaveState.Asked), (asked.Quote.State, asked.Show.State));
        Assert.False(asked.MayQuote || asked.MayShow);
        var approved = Of(new Happening.TestimonialPut(Words), new Happening.TestimonialApproved(Words));
        Assert.False(approved.IsOpen || approved.MayQuote);
    }

    [Fact]
    public void Only_the_words_they_approved_are_quoted_and_only_while_the_leave_stands()
    {
        Happening[] given =
        [
            new Happening.TestimonialPut(Words),
            new Happening.TestimonialApproved(Others),
            new Happening.LeaveGiven(LeaveTo.Quote, Sentence),
        ];
        Assert.True(Of(given).MayQuote);
        Assert.Equal(Others, Of(given).Approved);
        Assert.False(Of(given).MayShow);
        var revoked = Of([.. given, new Happening.LeaveRevoked(LeaveTo.Quote)]);
        Assert.False(revoked.MayQuote);
        Assert.Equal((LeaveState.Revoked, Sentence), (revoked.Quote.State, revoked.Quote.Wording!.Value));
        Assert.Equal(At("2027-01-07 09:00"), revoked.Quote.Since);
    }

    [Fact]
    public void What_was_refused_is_not_asked_for_again_with_the_next_words()
    {
        var again = Of(
            new Happening.TestimonialPut(Words),
            new Happening.LeaveRefused(LeaveTo.Show, Sentence),
            new Happening.TestimonialDeclined(),
            new Happening.TestimonialPut(Others)
        );
        Assert.True(again.IsOpen);
        Assert.Equal((LeaveState.Asked, LeaveState.Refused), (again.Quote.State, again.Show.State));
    }

    [Fact]
    public void Words_taken_back_ask_for_nothing() =>
        Assert.Equal(Testimonial.None, Of(new Happening.TestimonialPut(Words), new Happening.TestimonialTakenBack()));

    /// <summary>Told from the end: quoted is what somebody approved, once the last word on the leave to quote was a yes; shown, once the last word on the leave to show was one.</summary>
    [Fact]
    public void Whatever_happens_the_last_word_counts() =>
        Gen.OneOf(
                Gen.Const<Happening>(new Happening.TestimonialPut(Words)),
                Gen.Const<Happening>(new Happening.TestimonialTakenBack()),
                Gen.Const<Happening>(new Happening.TestimonialApproved(Words)),
                Gen.Const<Happening>(new Happening.TestimonialDeclined()),
                Gen.Enum<LeaveTo>().Select(to => (Happening)new Happening.LeaveGiven(to, Sentence)),
                Gen.Enum<LeaveTo>().Select(to => (Happening)new Happening.LeaveRefused(to, Sentence)),
                Gen.Enum<LeaveTo>().Select(to => (Happening)new Happening.LeaveRevoked(to))
            )
            .Array[0, 14]
            .Sample(life =>
            {
                var state = Of(life);
                Assert.Equal(LastIsYes(life, LeaveTo.Show), state.MayShow);
                Assert.Equal(
                    LastIsYes(life, LeaveTo.Quote) && life.Any(what => what is Happening.TestimonialApproved),
                    state.MayQuote
                );
            });

    private static bool LastIsYes(Happening[] life, LeaveTo of) =>
        life.LastOrDefault(what =>
            what switch
            {
                Happening.LeaveGiven given => given.To == of,
                Happening.LeaveRefused refused => refused.To == of,
                Happening.LeaveRevoked revoked => revoked.To == of,
                _ => false,
            }
        ) is Happening.LeaveGiven;

    /// <summary>Whoever owes something due, or has a round open or to be reworked, is not asked; who owes nothing and looks at nothing is.</summary>
    [Fact]
    public void Nobody_is_asked_for_a_favour_while_something_is_open_between_them() =>
        Gen.Shuffle(
                new Happening[]
                {
                    new Happening.InvoiceIssued(new(1), Eur(100), Date("2027-01-10")),
                    Paid(100, 1, 1),
                    new Happening.ReviewOpened(new(1), null),
                    new Happening.ChangesAsked(new(1), new(1)),
                    new Happening.ReviewApproved(new(1), null),
                    Answer(),
                    Letter(),
                },
                0,
                7
            )
            .Where(life => InOrder<Happening.InvoiceIssued, Happening.PaymentReceived>(life))
            .Where(life => InOrder<Happening.ReviewOpened, Happening.ReviewApproved>(life))
            .Where(life => InOrder<Happening.ReviewOpened, Happening.ChangesAsked>(life))
            .Where(life => InOrder<Happening.ChangesAsked, Happening.ReviewApproved>(life))
            .Sample(life =>
            {
                var waits = Favours.WaitFor(Case([.. life.Select((one, day) => (Day(day), one))]));
                var owes = Has<Happening.InvoiceIssued>(life) && !Has<Happening.PaymentReceived>(life);
                var looks = Has<Happening.ReviewOpened>(life) && !Has<Happening.ReviewApproved>(life);
                Assert.Equal(
                    owes ? "all that is due is paid"
                        : looks ? "the round of review is over"
                        : null,
                    waits
                );
            });

    private static bool Has<T>(Happening[] life) => life.Any(what => what is T);

    /// <summary>The second only after the first.</summary>
    private static bool InOrder<TFirst, TSecond>(Happening[] life) =>
        !Has<TSecond>(life)
        || Array.FindIndex(life, what => what is TFirst) is >= 0 and var first
            && Array.FindIndex(life, what => what is TSecond) > first;
}
