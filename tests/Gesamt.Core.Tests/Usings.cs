global using CsCheck;
global using Gesamt.Core.Amounts;
global using Gesamt.Core.Calendar;
global using Gesamt.Core.Facts;
global using NodaTime;
global using Xunit;
