using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Files;
using Gesamt.Web;
using Gesamt.Web.Access;
using Gesamt.Web.Archives;
using Gesamt.Web.Banking;
using Gesamt.Web.Books;
using Gesamt.Web.Briefs;
using Gesamt.Web.Capture;
using Gesamt.Web.Checklists;
using Gesamt.Web.ClientPages;
using Gesamt.Web.Contracts;
using Gesamt.Web.Demo;
using Gesamt.Web.Erasing;
using Gesamt.Web.Files;
using Gesamt.Web.Hooks;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Lists;
using Gesamt.Web.Meetings;
using Gesamt.Web.Outside;
using Gesamt.Web.Papers;
using Gesamt.Web.People;
using Gesamt.Web.Planning;
using Gesamt.Web.Prices;
using Gesamt.Web.Projects;
using Gesamt.Web.Proposals;
using Gesamt.Web.Recurring;
using Gesamt.Web.Registers;
using Gesamt.Web.Rehearsals;
using Gesamt.Web.Reports;
using Gesamt.Web.Reviews;
using Gesamt.Web.Routines;
using Gesamt.Web.RunSheets;
using Gesamt.Web.Search;
using Gesamt.Web.SettingUp;
using Gesamt.Web.SignIn;
using Gesamt.Web.Spent;
using Gesamt.Web.StandIns;
using Gesamt.Web.Studios;
using Gesamt.Web.Templates;
using Gesamt.Web.Testimonials;
using Gesamt.Web.Ticking;
using Gesamt.Web.Turns;
using Gesamt.Web.Upkeep;
using Gesamt.Web.Work;
using Microsoft.AspNetCore.DataProtection;

_ = Task.Run(Sqlite.WarmUp);
var builder = WebApplication.CreateBuilder(args);
Settings settings;
try
{
    settings = SettingsReader.Read(builder.Configuration);
}
catch (SettingException e)
{
    await Console.Error.WriteLineAsync(e.Message);
    return 2;
}

// the tool that writes the API's description runs this program up to its start, and must leave no data behind
var describing = System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";
if (describing)
    settings = new() { Data = Directory.CreateTempSubdirectory("gesamt-describe").FullName, Mode = RunMode.Demo };
Private.FromHereOn();
if (await Commands.BeforeAsync(args, settings) is { } exit)
    return exit;
Directory.CreateDirectory(settings.Data);
Private.Shut(settings.Data);
if (!describing && settings.Mode == RunMode.Real && await FilledAsync() is { } left)
    return left;
var ring = new KeyRing(settings);
ring.CheckProtection();

// it says at every token that it forbids caching, which is what it is for
builder.Logging.AddFilter("Microsoft.AspNetCore.Antiforgery", LogLevel.Error);

// it would write whole addresses, and a client's first one carries the token of a link
builder.Logging.AddFilter("Microsoft.AspNetCore.Hosting.Diagnostics", LogLevel.Warning);
var services = builder.Services;
services.AddSingleton(settings);
services.AddSingleton<TimeProvider>(
    settings.Mode == RunMode.Real ? TimeProvider.System : new AdjustableClock(TimeProvider.System)
);
services.AddDbContextPool<GesamtDb>(options => options.UseGesamt(settings.Database, settings.Flushes));
services.AddScoped<Desk>();
services.AddHealth();
services.AddSingleton<Doorplate>();
services.AddSingleton<SealKey>();

// its addresses are served before there is a studio, and described here with all others
if (describing)
    services.AddSingleton<EmptyHouse>();
services.AddSingleton<Live>();
services.AddSingleton<SharedAnswers>();
services.AddSingleton(ring);
services.AddSingleton<Disk>();
services.AddSingleton<Links>();
services.AddSingleton<SignCodes>();
services.AddSingleton<Upkeeping>();
services.AddSingleton<FormTokens>();
services.AddSingleton<Uploads>();
services.AddSingleton(new FileVault(settings.Files));
services.AddSingleton<Incoming>();
services.AddSingleton<Delivery>();
services.AddSingleton<Settlement>();
services.AddSingleton<PaperRound>();
services.AddSingleton<Ticker>();
if (!describing)
    services.AddHostedService(provider => provider.GetRequiredService<Ticker>());

// its sample cards must never book a real project
if (!settings.PaysOnPage)
    services.AddSingleton<IPaymentProvider, NoPaymentProvider>();
else
{
    services.AddSingleton<PaymentHouse>();
    services.AddSingleton<IStandInMemory>(provider => provider.GetRequiredService<PaymentHouse>());
    services.AddSingleton<IPaymentProvider>(provider => provider.GetRequiredService<PaymentHouse>());
}
services.AddScoped<Scheduling>();
services.AddSingleton<IFeeds, RunSheetFeed>();
services.AddSingleton<IFeeds, PlanSteps>();
services.AddSingleton<IFeeds, AppointmentFeed>();
services.AddSingleton<Importing>();
services.AddSingleton<WebCalendars>();
if (settings.Mode == RunMode.Real)
{
    services.AddSingleton<ICalendarSource>(provider => provider.GetRequiredService<WebCalendars>());
    services.AddSingleton<IVideoRooms, NoVideoRooms>();
}
else
{
    services.AddSingleton<SampleCalendar>();
    services.AddSingleton<ICalendarSource>(provider => provider.GetRequiredService<SampleCalendar>());
    services.AddSingleton<SampleRooms>();
    services.AddSingleton<IStandInMemory>(provider => provider.GetRequiredService<SampleRooms>());
    services.AddSingleton<IVideoRooms>(provider => provider.GetRequiredService<SampleRooms>());
}
services.AddSingleton<PostOffice>();
services.AddSingleton<IStandInMemory>(provider => provider.GetRequiredService<PostOffice>());
services.AddSingleton<IStandInMail>(provider => provider.GetRequiredService<PostOffice>());
services.AddSingleton<MailRoom>();
services.AddSingleton<ICarrier>(provider => provider.GetRequiredService<MailRoom>());
services.AddSingleton<IMailbox>(provider => provider.GetRequiredService<MailRoom>());
services.AddSingleton<HookCalls>();
services.AddSingleton<IEars>(provider => provider.GetRequiredService<HookCalls>());
services.AddSingleton<IEars, Obstacles>();
services.AddSingleton<Rehearsals>();
services.AddSignIn(settings.IsSecure);
services.AddDataProtection().PersistKeysToFileSystem(Directory.CreateDirectory(settings.Keys));
services.ConfigureHttpJsonOptions(options =>
{
    Api.Json(options.SerializerOptions);
    options.SerializerOptions.TypeInfoResolverChain.Insert(0, WireJson.Default);
    LaterJson.For(options.SerializerOptions);
});

// strangers read of the open part alone; the tool that makes the types of the pages reads all of it
services.AddOpenApi(options => Api.Describe(options, whole: describing));

builder.AddFront(settings);
services.AddResponseCompression(options => options.EnableForHttps = true);

services.AddSingleton<Archiving>();
services.AddSingleton<Clearing>();
services.AddScoped<Erasure>();

var app = builder.Build();
if (await Commands.WithServicesAsync(args, app.Services) is { } done)
    return done;
app.UseForwardedHeaders();
app.UseHeaders(settings);
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseSecureOnly(settings);
app.UseKnownCharsets();
app.Use(
    (context, next) =>
    {
        if (!HttpMethods.IsGet(context.Request.Method) && !context.Request.HasFormContentType)
            context.Request.Body = new HashedBody(context.Request.Body);
        return next(context);
    }
);
app.UseResponseCompression();
app.UsePageFiles();
app.UseRouting();
app.Use(
    async (context, next) =>
    {
        if (context.GetEndpoint() is not null)
            HouseStyle.Current = await context.RequestServices.GetRequiredService<Doorplate>().StyleAsync(context);
        await next(context);
    }
);
app.UseAuthentication();
app.UseAuthorization();
app.UseCallLimits(
    (SignInEndpoints.RateLimit, settings.SignInsPerMinute),
    (InquiryEndpoints.RateLimit, settings.InquiriesPerMinute),
    (ClientLink.RateLimit, settings.ClientCallsPerMinute),
    (ApiKeys.RateLimit, settings.OpenCallsPerMinute)
);

var api = app.MapGroup("/api").NameUnread().GuardWrites().RequireAuthorization().DeclareRefusals();
api.MapSignIn();
if (describing)
    api.MapSetUp();
api.MapTurns();
api.MapPlanning();
api.MapBooks();
api.MapProjects();
api.MapLetters();
api.MapPaperFiles();
api.MapSignedPapers();
api.MapInvoices();
api.MapBank();
api.MapRecurring();
api.MapPrices();
api.MapProposals();
api.MapContracts();
api.MapRateSheets();
api.MapFiles();
api.MapReviews();
api.MapWork();
api.MapChecklists();
api.MapSpent();
api.MapQuotes();
api.MapTestimonials();
api.MapRunSheets();
api.MapLists();
api.MapAccess();
api.MapWorkClock();
api.MapAsClient();
api.MapTogether();
api.MapRegister();
api.MapReports();
api.MapSearch();
api.MapTemplates();
api.MapStudio();
api.MapBackups();
api.MapArchive();
api.MapErasing();
api.MapTypedIn();
api.MapTray();
api.MapPeople();
api.MapBriefs();
api.MapDetailDoubts();
api.MapMeetings();
api.MapSlips();
api.MapProjectRoutines();
api.MapProjectForms();
api.MapMailAccount();
api.MapHooks();
Rehearsals.MapRehearsals(api);
Importing.MapImport(api);
if (settings.HasStandIns)
    api.MapPostOffice();
if (settings.Mode != RunMode.Real)
{
    api.MapClock();
    api.MapSampleCalendar();
    api.MapPaymentHouse();
    api.MapStandInBank();
    app.MapGroup("/rooms").GuardWrites().LimitCalls(ClientLink.RateLimit).MapRooms();
    app.MapSampleSite();
}
app.MapGroup("/notices").LimitCalls(ClientLink.RateLimit).MapNotices();
app.MapGroup("/api")
    .Map("{**rest}", () => Results.Problem(statusCode: 404, title: "Not found"))
    .ExcludeFromDescription();
var forms = app.MapGroup("/forms").NameUnread().ReceiveOnce().DeclareRefusals();
forms.MapInquiries();
forms.MapPlainForms();
app.MapGroup("/typed").NameUnread().LimitCalls(ClientLink.RateLimit).MapTyping();
app.MapOpen();
app.MapEmbedding();
app.MapFeed();
app.MapCheck();
app.MapEntering();
app.MapGroup("/p/{link}/api")
    .NameUnread()
    .GuardWrites()
    .AddEndpointFilter(ClientLink.OnlyOpenLinks)
    .AddEndpointFilter(ReadFirst.UntilStartCall)
    .LimitCalls(ClientLink.RateLimit)
    .DeclareRefusals()
    .MapClientPages()
    .MapClientContracts()
    .MapClientRateSheets()
    .MapClientWork()
    .MapClientTasks()
    .MapClientBrief()
    .MapClientTestimonial()
    .MapClientRunSheet()
    .MapClientLists()
    .MapClientMeetings()
    .MapClientForms();
if (settings.Mode != RunMode.Real)
    app.MapGroup("/card-house").GuardWrites().LimitCalls(ClientLink.RateLimit).MapCards();
app.MapHealth();
app.MapOpenApi("/openapi/{documentName}.json");
app.MapPages();

if (!describing)
{
    try
    {
        await Opening.PrepareAsync(app);
    }
    catch (SetUpException e)
    {
        await Console.Error.WriteLineAsync(e.Message);
        return 2;
    }
    await app.Services.GetRequiredService<Importing>().ResumeAsync();
    app.Services.GetRequiredService<Archiving>().TidyUp();
}
app.Lifetime.ApplicationStarted.Register(() =>
    app.Logger.LogInformation("Open at {Addresses}", string.Join(", ", app.Urls))
);
app.Run();
return 0;

// a house without a studio serves its first page until there is one; the exit code where there will be none
async Task<int?> FilledAsync()
{
    try
    {
        if (FirstStart.HoldsStudio(settings))
            return null;
        if (settings.OwnerPassword is null)
            return await EmptyHouse.ServeAsync(args, settings) ? null : 0;
        await FirstStart.LayAsync(settings, SignInEndpoints.NewHasher(), FirstStart.OwnerOf(settings));
        return null;
    }
    catch (SetUpException e)
    {
        await Console.Error.WriteLineAsync(e.Message);
        return 2;
    }
}

/// <summary>Named so that the tests can start it.</summary>
public partial class Program;
