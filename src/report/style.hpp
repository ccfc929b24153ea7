// How a report looks on a screen and in print.
#pragma once

namespace corvex::reporting {

inline constexpr const char* report_style =
    R"(html{font:15px/1.55 'DejaVu Sans',Verdana,sans-serif;color:#1c2630;background:#fff}
body{margin:0}
main{max-width:54rem;margin:0 auto;padding:2rem 1.5rem 4rem}
h1{font-size:1.7rem;line-height:1.25;margin:0 0 .5rem}
h2{font-size:1.3rem;margin:3rem 0 1rem;padding-bottom:.3rem;border-bottom:1px solid #bcc4cc}
h3{font-size:1.05rem;margin:2rem 0 .6rem}
a{color:#17527f}
nav ol{padding-left:1.6rem;columns:2;margin:1.2rem 0}
.changes{color:#5a4300;margin:.2rem 0}
dl{margin:0 0 1rem}
dl>div{display:flex;gap:1rem;padding:.12rem 0}
dt{flex:0 0 10.5rem;color:#51606d}
dd{margin:0;flex:1}
.head{border-top:1px solid #bcc4cc;border-bottom:1px solid #bcc4cc;padding:.5rem 0}
.good{color:#1d6b34}.warning{color:#8a5a00}.bad{color:#a8201a;font-weight:bold}
.wide{overflow-x:auto;margin:1.2rem 0 .4rem}
table{border-collapse:collapse;font-size:.82rem;line-height:1.4}
caption{text-align:left;font-weight:bold;padding-bottom:.35rem;font-size:.9rem}
th,td{padding:.2rem .7rem .2rem 0;text-align:left;vertical-align:top}
th{border-bottom:1px solid #77838e;vertical-align:bottom;font-weight:bold}
thead td{border-bottom:1px solid #77838e}
tbody tr{border-bottom:1px solid #eceff2}
.n{text-align:right;white-space:nowrap;font-variant-numeric:tabular-nums}
.unit{font-weight:normal;color:#51606d;white-space:nowrap}
.fill{visibility:hidden}
.beneath td{color:#3d4a55;padding-left:1rem}
.after{color:#51606d;font-size:.85rem;margin:.2rem 0 1rem}
figure{margin:1.4rem 0;break-inside:avoid}
figure.half{display:inline-block;width:49%;vertical-align:top}
@media(max-width:700px){figure.half{width:100%}}
figure svg{width:100%;height:auto;border:1px solid #e3e7ea}
figcaption{font-size:.85rem;color:#51606d;margin-top:.3rem}
.worked{margin:.9rem 0;padding-left:.9rem;border-left:3px solid #dbe2e8;break-inside:avoid}
.worked p{margin:.1rem 0}
.worked .what{font-weight:bold}
math{font-size:1.1rem;margin:.35rem 0;text-align:left}
math[display=block]{display:block math;text-align:left;overflow-x:auto;overflow-y:hidden;width:max-content;max-width:100%;margin:.35rem 0}
@media print{
@page{size:A4;margin:18mm 18mm 20mm}
html{font-size:12.5px}
main{max-width:none;padding:0}
h2,h3,caption{break-after:avoid}
tr{break-inside:avoid}
thead{display:table-header-group}
.wide{overflow:visible}
table{font-size:.74rem}
th,td{padding-right:.45rem}
}
)";

}  // namespace corvex::reporting
