using Gesamt.Core.Calendar;
using Gesamt.Web.Hosting;
using Gesamt.Web.Ticking;
using Microsoft.AspNetCore.Antiforgery;
using NodaTime;

namespace Gesamt.Web.StandIns;

/// <summary>What a client of the demo answers.</summary>
public sealed record PostAnswerDto(string Text);

/// <summary>The number of a sample card.</summary>
public sealed record CardNumberDto(string Number);

/// <summary>What opens a room.</summary>
public sealed record PasscodeDto(string Passcode);

/// <summary>The token that a write from a stand-in’s page carries.</summary>
public sealed record DoorDto(string Token);

/// <param name="Now">The studio's local time, such as 2027-01-25T10:30:00; or how far to move on.</param>
public sealed record SetClockDto(LocalDateTime? Now, int? AdvanceHours, bool Stands);

/// <summary>The clock of a demo.</summary>
public sealed record ClockDto(string Date, string Time, bool Stands);

/// <summary>The doors of the simulated outside world. They exist only where stand-ins do.</summary>
public static class StandInEndpoints
{
    public static void MapPostOffice(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/post-office",
            (string? address, PostOffice post) => post.List(string.IsNullOrWhiteSpace(address) ? null : address)
        );
        api.MapGet("/post-office/{id:long}", (long id, PostOffice post) => post.Letter(id));
        api.MapPost(
            "/post-office/{id:long}/answer",
            (long id, PostAnswerDto answer, PostOffice post, TimeProvider time, Live live) =>
            {
                if (answer.Text.Trim().Length is 0 or > 20_000)
                    throw new InvalidException(("text", "An answer of 1 to 20 000 characters is needed."));
                post.Answer(id, answer.Text.Trim(), time.GetUtcNow());
                live.ChangedAll();
            }
        );
    }

    public static void MapCards(this RouteGroupBuilder cards)
    {
        cards.MapGet(
            "/{session}",
            (string session, PaymentHouse house, HttpContext http, IAntiforgery antiforgery) =>
                house.Page(session, antiforgery.GetAndStoreTokens(http).RequestToken!)
        );
        cards.MapPost(
            "/{session}",
            (string session, CardNumberDto card, PaymentHouse house, Live live) =>
            {
                house.Pay(session, card.Number);
                live.ChangedAll();
            }
        );
    }

    /// <summary>The house as its own people see it: what was paid, and buttons for what goes wrong in the world.</summary>
    public static void MapPaymentHouse(this RouteGroupBuilder api)
    {
        api.MapGet("/payment-house", (PaymentHouse house) => house.All());
        api.MapPost(
            "/payment-house/{session}/notice",
            async (string session, PaymentHouse house, Desk desk) =>
            {
                await AgainAsync(session, house, desk);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/payment-house/{session}/take-back",
            (string session, PaymentHouse house, Live live) =>
            {
                house.TakeBack(session);
                live.ChangedAll();
            }
        );
    }

    /// <summary>The studio's bank: today's statement, as it would be fetched there.</summary>
    public static void MapStandInBank(this RouteGroupBuilder api) =>
        api.MapGet(
            "/stand-in-bank/statement",
            async (StatementForm? form, Desk desk) =>
            {
                var (file, name) = await StandInBank.TodayAsync(desk, form ?? StatementForm.Camt08);
                return TypedResults.File(file, "application/octet-stream", name);
            }
        );

    /// <summary>Sends the last notice of a payment once more, through the door that notices come in by.</summary>
    private static async Task AgainAsync(string session, PaymentHouse house, Desk desk)
    {
        var one =
            house.All().FirstOrDefault(payment => payment.Session == session) ?? throw new MissingException("payment");
        if (house.SessionOf(one.Notice, one.Signature) is { } known)
            await Invoicing.Checkout.SettleAsync(desk, house, known);
    }

    public static void MapSampleCalendar(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/outside-calendar",
            (SampleCalendar calendar, Desk desk) =>
                calendar
                    .Events()
                    .Select(e => new SampleEventDto(e.Id, e.Title, desk.Calendar.LocalOf(e.Start), e.Minutes))
                    .ToList()
        );
        api.MapPost(
            "/outside-calendar",
            (SampleEventDto put, SampleCalendar calendar, Desk desk) =>
            {
                if (put.Title.Trim().Length is 0 or > 100)
                    throw new InvalidException(("title", "A title of 1 to 100 characters is needed."));
                if (put.Minutes is < 5 or > 1_440)
                    throw new InvalidException(("minutes", "From 5 to 1440 minutes."));
                calendar.Put(put.Title.Trim(), desk.Calendar.At(put.Start), put.Minutes);
            }
        );
        api.MapDelete("/outside-calendar/{id:long}", (long id, SampleCalendar calendar) => calendar.Remove(id));
    }

    public static void MapRooms(this RouteGroupBuilder rooms)
    {
        rooms.MapGet(
            "/{code}/door",
            (HttpContext http, IAntiforgery antiforgery) =>
                new DoorDto(antiforgery.GetAndStoreTokens(http).RequestToken!)
        );
        rooms.MapPost(
            "/{code}/door",
            (string code, PasscodeDto said, SampleRooms rooms) => rooms.Enter(code, said.Passcode)
        );
    }

    /// <summary>The clock of a demo or a test; the real thing has no such address.</summary>
    public static void MapClock(this RouteGroupBuilder api)
    {
        api.MapGet("/clock", (Desk desk, TimeProvider time) => Read(desk, (AdjustableClock)time));
        api.MapPost(
            "/clock",
            async (SetClockDto set, Desk desk, TimeProvider time, Ticker ticker, Live live, CancellationToken stop) =>
            {
                var clock = (AdjustableClock)time;
                var to = set.Now is { } local
                    ? desk.Calendar.At(local)
                    : desk.Now + Duration.FromHours(set.AdvanceHours ?? 0);
                if (to < desk.Now)
                    throw new InvalidException(("now", "The clock only goes forward: what happened has happened."));
                clock.Set(to, set.Stands);
                await ticker.TickAsync(stop);
                live.ChangedAll();
                return Read(desk, clock);
            }
        );
    }

    private static ClockDto Read(Desk desk, AdjustableClock clock) =>
        new(
            DateWords.Short(desk.Today, desk.Today),
            DateWords.Time(desk.Calendar.LocalOf(desk.Now).TimeOfDay),
            clock.Stands
        );
}
